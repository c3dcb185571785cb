<?php

declare(strict_types=1);

namespace ZigLane\Core\Error;

use ZigLane\Core\Fact\Fact;

/**
 * Marks every exception that the core throws on purpose. What is wrong is a fact: the value found and what is allowed. Its message is
 * that fact for a log; the sentence for a person is the application's.
 */
interface CoreError extends \Throwable
{
    public function fact(): Fact;
}
