<?php

declare(strict_types=1);

/** A browser of one person: cookies, forms with their tokens. */
final class Person
{
    /** @var array<string, string> */
    private array $cookies = [];
    public string $page = '';
    public float $took = 0.0;

    public function __construct(private readonly string $url, public readonly string $name)
    {
    }

    /** @param array<string, mixed>|null $fields */
    public function ask(string $path, ?array $fields = null, string $from = ''): int
    {
        $curl = $this->prepared($path, $fields, $from);
        $start = hrtime(true);
        $answer = curl_exec($curl);
        $this->took = (hrtime(true) - $start) / 1e9;

        return $this->answered($curl, is_string($answer) ? $answer : '');
    }

    /** @param array<string, mixed>|null $fields */
    public function prepared(string $path, ?array $fields = null, string $from = ''): CurlHandle
    {
        $curl = curl_init(str_starts_with($path, 'http') ? $path : $this->url.$path);
        $cookies = '';
        foreach ($this->cookies as $name => $value) {
            $cookies .= "$name=$value; ";
        }
        curl_setopt_array($curl, [
            \CURLOPT_RETURNTRANSFER => true, \CURLOPT_HEADER => true, \CURLOPT_COOKIE => $cookies, \CURLOPT_TIMEOUT => 300,
            \CURLOPT_HTTPHEADER => ['Expect:', ...'' === $from ? [] : ["X-Forwarded-For: $from"]],
        ]);
        if (null !== $fields) {
            $hasFile = [] !== array_filter($fields, static fn (mixed $one): bool => $one instanceof CURLFile);
            curl_setopt($curl, \CURLOPT_POSTFIELDS, $hasFile ? $fields : http_build_query($fields));
        }

        return $curl;
    }

    public function answered(CurlHandle $curl, string $answer): int
    {
        $length = (int) curl_getinfo($curl, \CURLINFO_HEADER_SIZE);
        preg_match_all('/^set-cookie: ([^=]+)=([^;\r\n]*)/mi', substr($answer, 0, $length), $found, \PREG_SET_ORDER);
        foreach ($found as [, $name, $value]) {
            $this->cookies[$name] = $value;
        }
        $this->page = substr($answer, $length);

        return (int) curl_getinfo($curl, \CURLINFO_RESPONSE_CODE);
    }

    /** The token in the form of the page that posts to an address. */
    public function token(string $action): string
    {
        $form = '#<form[^>]*action="'.preg_quote($action, '#').'".*?name="[^"]*_token[^"]*"\s+value="([^"]+)"#s';

        return 1 === preg_match($form, $this->page, $found) ? html_entity_decode($found[1]) : '';
    }

    public static function registered(string $url, string $name): self
    {
        $person = new self($url, $name);
        $person->ask('/register');
        preg_match_all('/<input[^>]*name="([^"]+)"[^>]*?(?:value="([^"]*)")?[^>]*>/', $person->page, $found, \PREG_SET_ORDER);
        $fields = [];
        foreach ($found as $one) {
            preg_match('/value="([^"]*)"/', $one[0], $value);
            $fields[$one[1]] = match (true) {
                str_contains($one[1], 'name') => $name,
                str_contains($one[1], 'email') => $name.'-'.bin2hex(random_bytes(4)).'@example.org',
                str_contains($one[1], 'password') => 'long enough for '.$name,
                default => html_entity_decode($value[1] ?? ''),
            };
        }
        $status = $person->ask('/register', $fields);
        if (302 !== $status && 303 !== $status) {
            throw new RuntimeException("Signing up $name: $status");
        }
        $person->ask('/sheets');

        return $person;
    }
}
