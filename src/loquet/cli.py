"""The commands behind ./loquet that need Python: compile, verify, schema, warm, serve and what
belongs to the database.
"""

import argparse
import errno
import json
import os
import sys
from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import Any


def main(arguments: list[str] | None = None) -> int:
    """Run one command; returns its exit code."""
    parser = argparse.ArgumentParser(
        prog="loquet", description="From a brief to a proven board package."
    )
    commands = parser.add_subparsers(dest="command", required=True)
    compile_ = commands.add_parser("compile", help="compile a brief into a folder of files")
    compile_.add_argument("brief", type=Path)
    compile_.add_argument("--out", type=Path, required=True)
    compile_.add_argument("--json", action="store_true", help="print one JSON object")
    compile_.add_argument(
        "--pack", type=Path, action="append", default=[], help="a pack of parts of one's own"
    )
    for name, words in (
        ("house", "the house that makes the boards"),
        ("finish", "what its pads are covered with, such as 'gold'"),
        ("colour", "the colour of the mask"),
        ("thickness", "of the board, in mm"),
        ("copper", "thickness of the copper, in µm"),
        ("soldered-by", "'hand iron', 'hot plate' or 'assembly house'"),
    ):
        number = {"mm": float, "µm": int}.get(words[-2:], str)
        compile_.add_argument(f"--{name}", type=number, help=words)
    compile_.add_argument(
        "--insulator", action="store_true", default=None, help="1 mm about soft cells"
    )
    verify = commands.add_parser("verify", help="prove a compiled folder from its own bytes")
    verify.add_argument("folder", type=Path)
    verify.add_argument("--json", action="store_true")
    pins = commands.add_parser(
        "pins", help="plan the pins of a brief: schemes, assignment, budget, ways out"
    )
    pins.add_argument("brief", type=Path)
    pins.add_argument(
        "--out",
        type=Path,
        help="write header, map, report, overlay and wiring card into this folder",
    )
    pins.add_argument("--json", action="store_true", help="print one JSON object")
    for name, words in (
        ("power", "the power plan of a brief"),
        ("circuit", "the circuit of a brief"),
        ("kit", "what a brief needs that is on no board"),
        ("stack", "the stack of every board: walls, gaps, screws, openings, order"),
        ("quote", "what the devices of a brief cost at the door with every house"),
        ("build", "how a brief's boards are soldered, and what a meter should show"),
        ("log", "the log of a project file: revisions, cards, hours"),
    ):
        report = commands.add_parser(name, help=f"print {words}")
        report.add_argument("brief", type=Path)
        report.add_argument("--json", action="store_true", help="print one JSON object")
        if name == "quote":
            report.add_argument(
                "--pack", type=Path, action="append", default=[], help="houses, suppliers, parts"
            )
    switched = commands.add_parser("on", help="switch a brief's device on: volts, loads, states")
    switched.add_argument("brief", type=Path)
    switched.add_argument("--state", default="", help="such as cell=usual+usb=usual,high,play,on")
    switched.add_argument("--json", action="store_true", help="print one JSON object")
    shelf = commands.add_parser("shelf", help="packs: check, list, add, export, import")
    shelf.add_argument("what", choices=("check", "list", "add", "import", "export"))
    shelf.add_argument("pack", type=Path, nargs="*")
    shelf.add_argument("--out", type=Path, help="write the workshop's own parts into this file")
    shelf.add_argument("--json", action="store_true", help="print one JSON object")
    unit = commands.add_parser("unit", help="a simulated bench unit of a brief on a socket")
    unit.add_argument("brief", type=Path)
    unit.add_argument("--port", type=int, default=4123, help="0 takes a free one")
    unit.add_argument("--fault", type=int, default=0, help="set the fault of this number in it")
    schema = commands.add_parser("schema", help="print the JSON Schema of a brief, or of a pack")
    schema.add_argument("of", nargs="?", choices=("brief", "pack"), default="brief")
    commands.add_parser("warm", help="compile the fast loops and bake the chip index")
    commands.add_parser("openapi", help="print the OpenAPI description")
    commands.add_parser("migrate", help="bring the database up to date")
    commands.add_parser("seed", help="put the demo projects in where there are none")
    commands.add_parser("reset-demo", help="give the demo data back")
    serve = commands.add_parser("serve", help="run the application")
    serve.add_argument("--host", default="127.0.0.1")
    serve.add_argument("--port", type=int, default=8460)
    chosen = parser.parse_args(arguments)
    try:
        code = COMMANDS[chosen.command](chosen)
        sys.stdout.flush()
    except BrokenPipeError:  # whoever read the answer had enough of it
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0
    return code


def compile_command(chosen: argparse.Namespace) -> int:
    """0 ready, 1 bad input, 2 not ready."""
    from loquet.compiling import Unusable, compile_brief

    try:
        code, report = compile_brief(chosen.brief, chosen.out, chosen.pack, **as_ordered(chosen))
    except Unusable as error:
        return refuse(str(error), chosen.json)
    except OSError as error:
        return refuse(unwritable(error, chosen.out), chosen.json)
    if chosen.json:
        print(json.dumps(report, ensure_ascii=False))
        return code
    for severity in ("stops", "looks", "notes"):
        for finding in report[severity]:
            print(f"{severity[:-1]:5} {finding['sentence']} {finding['way_out']}")
    print(
        f"{'Ready' if report['ready'] else 'Not ready'}: {report['components']} components,"
        f" {report['nets']} nets, {report['unrouted']} unrouted, {report['violations']} violations,"
        f" {report['track_mm']} mm of track, {report['vias']} vias. Written to {chosen.out}."
    )
    return code


def as_ordered(chosen: argparse.Namespace) -> dict[str, Any]:
    """How the boards are to be made, as far as it was said."""
    same = ("house", "finish", "colour", "insulator", "soldered_by")
    named = {name: name for name in same} | {"thickness": "thickness_mm", "copper": "copper_um"}
    return {
        field: value
        for name, field in named.items()
        if (value := getattr(chosen, name)) is not None
    }


def unwritable(error: OSError, out: object) -> str:
    """What stands in the way of writing, and the way out."""
    if error.errno in (errno.ENOSPC, errno.EDQUOT):
        return (
            f"The disk is full, so {error.filename or out} could not be written. Make room, then"
            " run this again; what was there before is untouched."
        )
    return (
        f"{error.filename or out} cannot be written ({error.strerror}). Choose another folder with"
        " --out."
    )


def refuse(sentence: str, as_json: bool) -> int:
    """Say what is wrong with the input."""
    if as_json:
        print(json.dumps({"ready": False, "error": sentence}, ensure_ascii=False))
    print(sentence, file=sys.stderr)
    return 1


def verify_command(chosen: argparse.Namespace) -> int:
    """0 proven and ready, 1 nothing to prove, 2 proven and not ready, 3 the files differ from the
    design.
    """
    from loquet.compiling import Unusable, proof_figures, verify_folder

    try:
        proof, stops = verify_folder(chosen.folder)
    except Unusable as error:
        return refuse(str(error), chosen.json)
    faults = [
        {"file": f.file, "net": f.net, "x_mm": f.x_mm, "y_mm": f.y_mm, "sentence": f.sentence}
        for f in proof.faults
    ]
    if chosen.json:
        print(
            json.dumps(
                {
                    "proven": proof.holds,
                    "ready": proof.holds and not stops,
                    "stops": list(stops),
                    **(proof_figures(proof) or {}),
                    "faults": faults,
                },
                ensure_ascii=False,
            )
        )
    elif proof.holds:
        print(
            f"{'Proven, not ready' if stops else 'Proven'}: {proof.nets} nets, {proof.pads} pads, "
            f"{proof.gaps} gaps, {proof.holes} holes, {proof.keys} keys scanned. "
            "The files hold the design."
        )
        for sentence in stops:
            print(f"stop  {sentence}")
    else:
        for row in faults[:40]:
            print(f"{row['net'] or 'no net'}: {row['sentence']}")
        print(f"Not proven: {len(faults)} differences between the files and the design.")
    if not proof.holds:
        return 3
    return 2 if stops else 0


def pins_command(chosen: argparse.Namespace) -> int:
    """0 planned, 1 bad input, 2 no plan exists: the conflict and the ways out are said."""
    from loquet.compiling import Unusable
    from loquet.planning_pins import plan_brief, say_plan

    try:
        code, report = plan_brief(chosen.brief, chosen.out)
    except Unusable as error:
        return refuse(str(error), chosen.json)
    except OSError as error:
        return refuse(unwritable(error, chosen.out), chosen.json)
    print(json.dumps(report, ensure_ascii=False) if chosen.json else say_plan(report))
    return code


def power_command(chosen: argparse.Namespace) -> int:
    """0 nothing stands against it, 1 bad input, 2 a stop does."""
    from loquet.reports.plans import report_power, say_power

    return report_command(chosen, report_power, say_power)


def circuit_command(chosen: argparse.Namespace) -> int:
    """0 nothing stands against it, 1 bad input or no circuit, 2 a stop does."""
    from loquet.reports.plans import report_circuit, say_circuit

    return report_command(chosen, report_circuit, say_circuit)


def on_command(chosen: argparse.Namespace) -> int:
    """0 nothing stands against it, 1 bad input, no circuit or no such state, 2 a stop does."""
    from loquet.reports.on import report_on, say_on

    return report_command(chosen, partial(report_on, wanted=chosen.state), say_on)


def kit_command(chosen: argparse.Namespace) -> int:
    """0 said, 1 bad input."""
    from loquet.reports.plans import report_kit, say_kit

    return report_command(chosen, report_kit, say_kit)


def stack_command(chosen: argparse.Namespace) -> int:
    """0 nothing stands against it, 1 bad input or no board, 2 a stop does."""
    from loquet.reports.stack import report_stack, say_stack

    return report_command(chosen, report_stack, say_stack)


def quote_command(chosen: argparse.Namespace) -> int:
    """0 said, 1 bad input, 2 the boards are not ready to be ordered."""
    from loquet.reports.quote import report_quote, say_quote

    return report_command(chosen, lambda path: report_quote(path, chosen.pack), say_quote)


def build_command(chosen: argparse.Namespace) -> int:
    """0 said, 1 bad input or no board."""
    from loquet.reports.build import report_build, say_build

    return report_command(chosen, report_build, say_build)


def log_command(chosen: argparse.Namespace) -> int:
    """0 nothing is open, 1 no project file, 2 a fault is open."""
    from loquet.reports.log import report_log, say_log

    return report_command(chosen, report_log, say_log)


def report_command(
    chosen: argparse.Namespace,
    work_out: Callable[[Path], tuple[int, dict[str, Any]]],
    say: Callable[[dict[str, Any]], str],
) -> int:
    """A report of a brief, as JSON or in lines."""
    from loquet.compiling import Unusable

    try:
        code, report = work_out(chosen.brief)
    except Unusable as error:
        return refuse(str(error), chosen.json)
    print(json.dumps(report, ensure_ascii=False) if chosen.json else say(report))
    return code


def shelf_command(chosen: argparse.Namespace) -> int:
    """0 done, 1 refused, 2 parts that lack something of their role."""
    from loquet.compiling import Unusable
    from loquet.shelving import run

    try:
        code, report = run(chosen.what, chosen.pack, chosen.out)
    except Unusable as error:
        return refuse(str(error), chosen.json)
    print(json.dumps(report, ensure_ascii=False) if chosen.json else report["text"])
    return code


def unit_command(chosen: argparse.Namespace) -> int:
    """A simulated bench unit that answers on the loopback until it is stopped."""
    from loquet.compiling import Unusable
    from loquet.reports.bench import unit_server

    try:
        server, words = unit_server(chosen.brief, chosen.port, chosen.fault)
    except Unusable as error:
        return refuse(str(error), False)
    print(
        f"Simulated bench unit at {server.address}: {words or 'good'}. Ctrl-C stops it.", flush=True
    )
    with server:
        try:
            server.serve_forever()
        except KeyboardInterrupt:
            return 0
    return 0


def schema_command(chosen: argparse.Namespace) -> int:
    """What a brief, or a pack of parts, may hold."""
    from loquet.core.brief import Brief
    from loquet.core.shelf.pack import Pack

    model = Pack if chosen.of == "pack" else Brief
    print(json.dumps(model.model_json_schema(), indent=2, sort_keys=True))
    return 0


def warm_command(_: argparse.Namespace) -> int:
    """Route a small board once, so that the first click does not wait for the compiler."""
    from loquet.warming import warm

    warm()
    return 0


def openapi_command(_: argparse.Namespace) -> int:
    """The description that the front end's types are made from."""
    from loquet.api.application import describe

    print(json.dumps(describe(), indent=1, sort_keys=True))
    return 0


def migrate_command(_: argparse.Namespace) -> int:
    """Alembic to the newest revision."""
    from loquet.store.migrating import upgrade

    upgrade()
    return 0


def seed_command(_: argparse.Namespace) -> int:
    """Demo projects, where there are none."""
    from loquet.demo.seeding import seed

    seed()
    return 0


def reset_command(_: argparse.Namespace) -> int:
    """Demo projects as they were."""
    from loquet.demo.seeding import reset

    reset()
    return 0


def serve_command(chosen: argparse.Namespace) -> int:
    """The application, until it is told to stop."""
    from loquet.api.serving import Serving, serve

    return serve(Serving(chosen.host, chosen.port))


COMMANDS = {
    "compile": compile_command,
    "verify": verify_command,
    "pins": pins_command,
    "power": power_command,
    "circuit": circuit_command,
    "on": on_command,
    "kit": kit_command,
    "stack": stack_command,
    "quote": quote_command,
    "build": build_command,
    "log": log_command,
    "shelf": shelf_command,
    "unit": unit_command,
    "schema": schema_command,
    "warm": warm_command,
    "openapi": openapi_command,
    "migrate": migrate_command,
    "seed": seed_command,
    "reset-demo": reset_command,
    "serve": serve_command,
}

if __name__ == "__main__":
    sys.exit(main())
