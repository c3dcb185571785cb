<?php

declare(strict_types=1);

namespace ZigLane\Core\Error;

/**
 * Marks every exception that the core throws on purpose. Its message is a sentence for a person: the value found, what is
 * allowed and, where a person can mend it, how.
 */
interface CoreError extends \Throwable
{
}
