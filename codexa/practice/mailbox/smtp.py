"""The mailbox's mail server, on loopback alone."""

import asyncio
import os

from aiosmtpd.smtp import SMTP, Envelope, Session

from codexa.practice.mailbox import store

_SLOW_SECONDS = float(os.environ.get("PRACTICE_SMTP_SLOW", "8"))
_MOST_BYTES = 30 * 1024 * 1024


class Handler:
    """Takes mail, or does not, as it was told."""

    async def handle_RCPT(  # noqa: N802 - the name that aiosmtpd calls
        self, _server: SMTP, _session: Session, envelope: Envelope, address: str, _options: list[str]
    ) -> str:
        """Refuse everybody, or whoever is named for it."""
        if store.mode() == "refuse" or address.startswith("refused@"):
            return "550 There is nobody of that name here"
        envelope.rcpt_tos.append(address)
        return "250 OK"

    async def handle_DATA(self, server: SMTP, _session: Session, envelope: Envelope) -> str:  # noqa: N802
        """Keep the mail."""
        mode = store.mode()
        if mode == "later":
            return "451 Come again later"
        if mode == "slow":
            await asyncio.sleep(_SLOW_SECONDS)
        content = envelope.content or b""
        store.keep(content if isinstance(content, bytes) else content.encode(), list(envelope.rcpt_tos))
        if mode == "lost" and server.transport is not None:
            server.transport.close()
        return "250 OK"


async def serve(port: int) -> None:
    """Take mail until the process is ended."""
    loop = asyncio.get_running_loop()
    server = await loop.create_server(
        lambda: SMTP(Handler(), hostname="practice-mailbox", data_size_limit=_MOST_BYTES), "127.0.0.1", port
    )
    async with server:
        await server.serve_forever()


if __name__ == "__main__":
    asyncio.run(serve(int(os.environ.get("PRACTICE_SMTP_PORT", "8725"))))
