"""The launcher's second half: what needs Python."""

import argparse
import sys

from loquet.launcher.steps import SetupFailed

HELP = """Loquet: from a brief to a proven board package.

  ./loquet demo [--port N] [--host H]   set up what is missing, start with demo data
  ./loquet start [--port N] [--host H] [--scheduler ADDRESS]
                                        the same without adding demo data; long work goes to a
                                        dask.distributed cluster where its scheduler is named
  ./loquet backup FILE                  everything that is stored, in one file
  ./loquet restore FILE                 put a backup in place of everything that is stored
  ./loquet reset-demo                   give the demo projects back as they were
  ./loquet compile BRIEF --out DIR [--pack FILE] [--house H] [--finish F] [--colour C] [--json]
                                        a brief to a proven package, without a database
  ./loquet shelf check|list|add|import|export [FILE] [--out FILE] [--json]
                                        packs of parts of one's own: docs/shelf.md
  ./loquet verify DIR [--json]          prove a package from its own bytes
  ./loquet power BRIEF [--json]         sources, rails, loads, and the ways between them
  ./loquet circuit BRIEF [--json]       components, nets, rails, workings and findings
  ./loquet on BRIEF [--state S] [--json]
                                        switched on: what is wrong in which state, volts, loads
  ./loquet kit BRIEF [--json]           everything that the devices need and that is on no board
  ./loquet stack BRIEF [--json]         walls, gaps, screws, openings, how to put it together
  ./loquet quote BRIEF [--json]         what the devices cost at the door, for 5 to 1,000
  ./loquet build BRIEF [--json]         soldering steps, and what a meter should show
  ./loquet unit BRIEF [--port N] [--fault N]
                                        a simulated bench unit on a socket
  ./loquet log PROJECT.zip [--json]     revisions, cards and hours of a saved project
  ./loquet pins BRIEF [--out DIR] [--json]
                                        plan the pins; files for the firmware
  ./loquet schema [brief|pack]          print the JSON Schema of a brief, or of a pack of parts
  ./loquet test [pytest arguments]      every check and test
  ./loquet bench [board|pins|kills|pages|faults|on] [N]
                                        time the chain, or the pin solver, on generated boards
  ./loquet shots                        take the pictures of docs/screenshots anew
  ./loquet help                         this text
"""


def main() -> int:
    """Run one command."""
    command, rest = (sys.argv[1] if len(sys.argv) > 1 else "help"), sys.argv[2:]
    try:
        match command:
            case "demo" | "start":
                from loquet.launcher.running import Wanted, start

                chosen = address(command, rest)
                return start(Wanted(chosen.host, chosen.port, command == "demo", chosen.scheduler))
            case "web":
                from loquet.launcher.steps import ensure_web

                ensure_web()
                return 0
            case "backup":
                from loquet.launcher.keeping import backup

                return backup(rest)
            case "restore":
                from loquet.launcher.keeping import restore

                return restore(rest)
            case "reset-demo":
                from loquet.launcher.running import reset_demo

                return reset_demo()
            case "test":
                from loquet.launcher.testing import test

                return test(rest)
            case "shots":
                from loquet.launcher.shooting import shots

                return shots()
            case "shelf":
                from loquet.launcher.keeping import shelf

                return shelf(rest)
            case (
                "compile"
                | "verify"
                | "pins"
                | "on"
                | "power"
                | "circuit"
                | "kit"
                | "stack"
                | "quote"
                | "build"
                | "unit"
                | "log"
                | "schema"
                | "openapi"
            ):
                from loquet.cli import main as command_line

                return command_line([command, *rest])
            case "help" | "--help" | "-h":
                print(HELP)
                return 0
        print(f"There is no command '{command}'.\n\n{HELP}", file=sys.stderr)
        return 1
    except SetupFailed as problem:
        print(f"loquet: {problem}", file=sys.stderr)
        return 4
    except KeyboardInterrupt:
        return 130


def address(command: str, rest: list[str]) -> argparse.Namespace:
    """Host and port; loopback unless told."""
    parser = argparse.ArgumentParser(prog=f"loquet {command}")
    parser.add_argument("--host", default="127.0.0.1")
    parser.add_argument("--port", type=port_number, default=8460)
    parser.add_argument(
        "--scheduler",
        default="",
        help="address of a dask.distributed scheduler for long work, such as tcp://127.0.0.1:8786",
    )
    return parser.parse_args(rest)


def port_number(text: str) -> int:
    """A port from 1 to 65535; argparse says so where it is none."""
    if not text.isdigit() or not 1 <= int(text) <= 65535:
        raise argparse.ArgumentTypeError(f"'{text}' is no port; give a number from 1 to 65535")
    return int(text)


if __name__ == "__main__":
    sys.exit(main())
