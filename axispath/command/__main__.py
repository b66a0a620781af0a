"""python -m axispath.command COMMAND, as ./axis-path calls it."""

from __future__ import annotations

import sys

from axispath.command.errors import CommandFailed


def main(arguments: list[str]) -> int:
    """Run one command; gives the exit code."""
    command, rest = arguments[0], arguments[1:]
    match command:
        case "demo" | "serve":
            from axispath.command.serving import serve

            return serve(with_demo=command == "demo")
        case "test":
            from axispath.command.suite.run import run_tests

            return run_tests(rest)
        case "backup" | "restore":
            from axispath.command import backing

            return backing.backup(rest) if command == "backup" else backing.restore(rest)
        case "convert":
            from axispath.command.converting import convert

            return convert(rest)
        case "verify":
            from axispath.command.verifying import verify

            return verify(rest)
        case "bench":
            from bench.run import run_bench

            return run_bench(rest)
    raise CommandFailed(f"there is no command {command}.")


if __name__ == "__main__":
    try:
        sys.exit(main(sys.argv[1:]))
    except CommandFailed as failed:
        print(f"axis-path: {failed}", file=sys.stderr)
        sys.exit(1)
    except KeyboardInterrupt:
        sys.exit(130)
