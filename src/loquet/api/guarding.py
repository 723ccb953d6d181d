"""What stands before every endpoint: whose requests are taken, how large and slow they may be, and
the headers of every answer.
"""

import asyncio
import hmac
import logging
from collections.abc import Awaitable, Callable, MutableMapping
from dataclasses import dataclass
from http.cookies import CookieError, SimpleCookie
from typing import Any
from urllib.parse import parse_qs, urlencode

from fastapi.responses import JSONResponse, RedirectResponse, Response

from loquet.api.errors import Problem

LOG = logging.getLogger("loquet.api")
LARGEST_REQUEST, LARGEST_PROJECT = 2_000_000, 100_000_000
LARGER = {
    "/api/projects/read-in": LARGEST_PROJECT,
    "/api/shelf/pack": 15_000_000,
    "/api/shelf/price-list": 25_000_000,
    "/api/shelf/price-list/look": 25_000_000,
}
"""What takes larger bodies than others."""
BODY_SECONDS = 20.0
LOOPBACK = ("127.0.0.1", "localhost", "[::1]")
READING = ("GET", "HEAD", "OPTIONS")
OWN_HEADER = b"x-loquet"
COOKIE = "loquet-token"
SAFE = (
    (b"x-content-type-options", b"nosniff"),
    (b"referrer-policy", b"no-referrer"),
    (b"cross-origin-resource-policy", b"same-origin"),
    (
        b"content-security-policy",
        (
            b"default-src 'self'; img-src 'self' data:; style-src 'self' 'unsafe-inline';"
            b" frame-ancestors 'none'; form-action 'self'; base-uri 'none'"
        ),
    ),
)
Message = MutableMapping[str, Any]
Scope = MutableMapping[str, Any]
Receive = Callable[[], Awaitable[Message]]
Send = Callable[[Message], Awaitable[None]]
App = Callable[[Scope, Receive, Send], Awaitable[None]]


@dataclass(frozen=True)
class Door:
    """Under which host names the application answers, and the token it asks for where strangers can
    reach it.
    """

    hosts: tuple[str, ...] = LOOPBACK
    token: str = ""


class Guard:
    """ASGI middleware around everything: also what fails inside leaves with a sentence and the
    usual headers.
    """

    def __init__(self, app: App, door: Door) -> None:
        self.app, self.door = app, door

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """One request."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        begun = False

        async def answer(message: Message) -> None:
            nonlocal begun
            if message["type"] == "http.response.start":
                begun = True
                message["headers"] = [*message.get("headers", ()), *SAFE]
            await send(message)

        refused = self.stranger(scope)
        if refused is None and scope["method"] not in READING:
            body = await whole_body(scope, receive)
            if isinstance(body, Response):
                refused = body
            else:
                receive = replayed(body, receive)
        try:
            await (refused or self.app)(scope, receive, answer)
        except Exception as error:
            LOG.exception("%s %s", scope["method"], scope["path"], exc_info=error)
            if begun:
                raise
            await failure()(scope, receive, answer)

    def stranger(self, scope: Scope) -> Response | None:
        """The refusal of a request that comes from elsewhere, or nothing."""
        headers = dict(scope["headers"])
        host = headers.get(b"host", b"").decode("latin-1")
        if "*" not in self.door.hosts and name_of(host) not in self.door.hosts:
            return problem(
                403,
                "This address is not one of Loquet's own.",
                f"Open http://{self.door.hosts[0]} with the port that Loquet printed.",
            )
        if scope["method"] not in READING and not own_page(headers, host):
            return problem(
                403,
                "A page of another address asked for a change.",
                "Make the change in Loquet's own page.",
            )
        return self.tokenless(scope, headers)

    def tokenless(self, scope: Scope, headers: dict[bytes, bytes]) -> Response | None:
        """Where a token is asked for: the page with `?token=` gets a cookie, all else needs that
        cookie.
        """
        if not self.door.token:
            return None
        asked = parse_qs(scope.get("query_string", b"").decode("latin-1"))
        given = asked.pop("token", [""])[0]
        if given and hmac.compare_digest(given.encode(), self.door.token.encode()):
            rest = urlencode(asked, doseq=True)
            away = RedirectResponse(scope["path"] + (f"?{rest}" if rest else ""), 303)
            away.set_cookie(COOKIE, self.door.token, httponly=True, samesite="strict")
            return away
        if hmac.compare_digest(cookie_of(headers), self.door.token):
            return None
        return problem(
            401,
            "This Loquet asks for its token.",
            "Open the address with ?token= that ./loquet printed when it started.",
        )


def cookie_of(headers: dict[bytes, bytes]) -> str:
    """The token that a request brings."""
    try:
        found = SimpleCookie(headers.get(b"cookie", b"").decode("latin-1")).get(COOKIE)
    except CookieError:
        return ""
    return found.value if found and found.value.isascii() else ""


def name_of(host: str) -> str:
    """The name in a Host header, without its port."""
    if host.startswith("["):
        return host[: host.find("]") + 1]
    return host.partition(":")[0].lower()


def own_page(headers: dict[bytes, bytes], host: str) -> bool:
    """Whether a change is asked for by our own page (its origin is this host) or by a program that
    says so (own header).
    """
    origin = headers.get(b"origin")
    if origin is not None:
        return origin.decode("latin-1") in (f"http://{host}", f"https://{host}")
    return OWN_HEADER in headers


async def whole_body(scope: Scope, receive: Receive) -> bytes | Response:
    """The body of a request, or the refusal where it is too large or too slow, chunked or not."""
    most = LARGER.get(scope["path"], LARGEST_REQUEST)
    length = dict(scope["headers"]).get(b"content-length", b"0")
    if not length.isdigit() or int(length) > most:
        return too_large(most)
    chunks, size = [], 0
    try:
        async with asyncio.timeout(BODY_SECONDS):
            while True:
                message = await receive()
                if message["type"] != "http.request":
                    return problem(400, "The request broke off.", "Send it again.")
                chunks.append(message.get("body", b""))
                size += len(chunks[-1])
                if size > most:
                    return too_large(most)
                if not message.get("more_body"):
                    return b"".join(chunks)
    except TimeoutError:
        return problem(
            408, f"The request took longer than {BODY_SECONDS:.0f} s to arrive.", "Send it again."
        )


def replayed(body: bytes, receive: Receive) -> Receive:
    """A receive that gives the body, then what comes after it."""
    given = False

    async def again() -> Message:
        nonlocal given
        if not given:
            given = True
            return {"type": "http.request", "body": body, "more_body": False}
        return await receive()

    return again


def problem(status: int, sentence: str, way_out: str = "") -> JSONResponse:
    """A refusal as every error of the application looks."""
    return JSONResponse(Problem(sentence=sentence, way_out=way_out).model_dump(), status)


def too_large(most: int = LARGEST_REQUEST) -> JSONResponse:
    """The refusal of a large body."""
    return problem(
        413,
        f"The request is larger than {most // 1_000_000} MB.",
        "A brief is at most 1 MB; check that this is the right file.",
    )


def failure() -> JSONResponse:
    """The answer where something broke inside."""
    return problem(
        500,
        "Something went wrong inside Loquet.",
        "Nothing was changed. The log file .loquet/log/loquet.log has the details.",
    )
