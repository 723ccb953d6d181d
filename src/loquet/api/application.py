"""The application put together: endpoints, errors, limits, the front end's files."""

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import Path
from typing import Any

from fastapi import FastAPI, Request
from fastapi.responses import FileResponse, JSONResponse, Response
from fastapi.routing import APIRoute

from loquet import __version__
from loquet.api import errors, planning, projects, releases, stations
from loquet.api.context import Context

LARGEST_REQUEST = 2_000_000
SAFE = {
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "no-referrer",
    "Content-Security-Policy": "default-src 'self'; img-src 'self' data:; style-src 'self' 'unsafe-inline'; frame-ancestors 'none'",
}


def operation_name(route: APIRoute) -> str:
    """Client names are the function names."""
    return route.name


def make_application(context: Context | None, web: Path | None) -> FastAPI:
    """The application around a context; without one only its description is of use."""

    @asynccontextmanager
    async def lifespan(app: FastAPI) -> AsyncIterator[None]:
        if context:
            context.jobs.mark_lost()
        yield
        if context:
            context.jobs.close()

    app = FastAPI(title="Loquet", version=__version__, lifespan=lifespan, generate_unique_id_function=operation_name, docs_url=None, redoc_url=None)
    app.state.context = context
    errors.install(app)
    for part in (projects, stations, planning, releases):
        app.include_router(part.router)

    @app.middleware("http")
    async def guard(request: Request, call_next: Any) -> Response:
        size = request.headers.get("content-length", "0")
        if not size.isdigit() or int(size) > LARGEST_REQUEST:
            problem = errors.Problem(
                sentence="The request is larger than 2 MB.", way_out="A brief is at most 1 MB; check that this is the right file."
            )
            return JSONResponse(problem.model_dump(), 413)
        response: Response = await call_next(request)
        response.headers.update(SAFE)
        return response

    if web:
        serve_web(app, web)
    return app


def serve_web(app: FastAPI, web: Path) -> None:
    """The built front end: assets for ever, the page for every address of the application, 404 for unknown data."""

    @app.get("/{path:path}", include_in_schema=False)
    def page(path: str) -> Response:
        if path.startswith("api/"):
            return JSONResponse(errors.Problem(sentence=f"There is nothing at /{path[:80]}.").model_dump(), 404)
        file = (web / path).resolve()
        if path and file.is_file() and file.is_relative_to(web.resolve()):
            lasting = path.startswith("assets/")
            return FileResponse(file, headers={"Cache-Control": "public, max-age=31536000, immutable" if lasting else "no-cache"})
        if path.startswith("assets/"):
            return JSONResponse(errors.Problem(sentence="There is no such file.").model_dump(), 404)
        return FileResponse(web / "index.html", headers={"Cache-Control": "no-cache"})


def describe() -> dict[str, Any]:
    """The OpenAPI description."""
    return make_application(None, None).openapi()
