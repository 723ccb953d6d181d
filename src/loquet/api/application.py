"""The application put together: endpoints, errors, limits, the front end's files."""

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import Path
from typing import Any

from fastapi import FastAPI
from fastapi.middleware.gzip import GZipMiddleware
from fastapi.responses import FileResponse, JSONResponse, Response
from fastapi.routing import APIRoute

from loquet import __version__
from loquet.api import (
    builds,
    circuit,
    errors,
    history,
    houses,
    jobs,
    kinds,
    logs,
    ordering,
    outlines,
    panels,
    parts,
    pastes,
    planning,
    power,
    projects,
    releases,
    shelf,
    stacks,
    stations,
    suppliers,
    switched_on,
    units,
)
from loquet.api.context import Context
from loquet.api.guarding import Door, Guard

LONGEST_PATH = 300
STATUSES: dict[int | str, dict[str, Any]] = {
    status: {"model": errors.Problem}
    for status in (400, 401, 403, 404, 405, 408, 409, 413, 422, 500, 503)
}


def operation_name(route: APIRoute) -> str:
    """Client names are the function names."""
    return route.name


def make_application(
    context: Context | None, web: Path | None, door: Door | None = None
) -> FastAPI:
    """The application around a context; without one only its description is of use."""

    @asynccontextmanager
    async def lifespan(app: FastAPI) -> AsyncIterator[None]:
        if context:
            context.jobs.mark_lost()
        yield
        if context:
            context.jobs.close()

    app = FastAPI(
        title="Loquet",
        version=__version__,
        lifespan=lifespan,
        generate_unique_id_function=operation_name,
        docs_url=None,
        redoc_url=None,
        responses=STATUSES,
    )
    app.state.context = context
    errors.install(app)
    for part in (
        jobs,
        projects,
        history,
        stations,
        outlines,
        panels,
        circuit,
        switched_on,
        parts,
        shelf,
        houses,
        pastes,
        suppliers,
        power,
        planning,
        kinds,
        releases,
        stacks,
        builds,
        units,
        logs,
        ordering,
    ):
        app.include_router(part.router)

    app.add_middleware(GZipMiddleware, minimum_size=1_000, compresslevel=5)
    app.add_middleware(Guard, door=door or Door())
    if web:
        serve_web(app, web)
    return app


def serve_web(app: FastAPI, web: Path) -> None:
    """The built front end: assets for ever, the page for every address of the application, 404 for
    unknown data.
    """

    @app.get("/{path:path}", include_in_schema=False)
    def page(path: str) -> Response:
        if path.startswith("api/"):
            return JSONResponse(
                errors.Problem(sentence=f"There is nothing at /{path[:80]}.").model_dump(), 404
            )
        if len(path) > LONGEST_PATH or "\0" in path:
            return JSONResponse(
                errors.Problem(sentence="There is no such address.").model_dump(), 404
            )
        file = (web / path).resolve()
        if path and file.is_relative_to(web.resolve()) and file.is_file():
            lasting = path.startswith("assets/")
            return FileResponse(
                file,
                headers={
                    "Cache-Control": (
                        "public, max-age=31536000, immutable" if lasting else "no-cache"
                    )
                },
            )
        if path.startswith("assets/"):
            return JSONResponse(errors.Problem(sentence="There is no such file.").model_dump(), 404)
        return FileResponse(web / "index.html", headers={"Cache-Control": "no-cache"})


def describe() -> dict[str, Any]:
    """The OpenAPI description."""
    return make_application(None, None).openapi()
