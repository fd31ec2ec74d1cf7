"""A stand-in for a store that speaks S3: one bucket in memory, as much of the protocol as keeping files by name takes."""

from __future__ import annotations

from xml.sax.saxutils import escape

from flask import Flask, Response, request

SPACE = 'xmlns="http://s3.amazonaws.com/doc/2006-03-01/"'
HEAD = '<?xml version="1.0" encoding="UTF-8"?>'
WHEN = "2026-11-27T12:00:00.000Z"


def bucket_app(bucket: str) -> Flask:
    """The bucket as an application; signatures are not looked at."""
    app, held = Flask(__name__), dict[str, bytes]()

    @app.get(f"/{bucket}")
    def listed() -> Response:
        if "location" in request.args:
            return _xml(f"<LocationConstraint {SPACE}/>")
        rows = "".join(
            f"<Contents><Key>{escape(name)}</Key><LastModified>{WHEN}</LastModified><ETag>x</ETag>"
            f"<Size>{len(content)}</Size><StorageClass>STANDARD</StorageClass></Contents>"
            for name, content in sorted(held.items())
        )
        told = f"<Name>{bucket}</Name><KeyCount>{len(held)}</KeyCount><IsTruncated>false</IsTruncated>"
        return _xml(f"<ListBucketResult {SPACE}>{told}{rows}</ListBucketResult>")

    @app.route(f"/{bucket}/<name>", methods=["GET", "PUT", "DELETE"])
    def one(name: str) -> Response:
        if request.method == "PUT":
            held[name] = _unsigned(request.get_data())
            return Response(headers={"ETag": '"x"'})
        if request.method == "DELETE":
            held.pop(name, None)
            return Response(status=204)
        if name not in held:
            return _xml("<Error><Code>NoSuchKey</Code><Message>none</Message><Resource>/</Resource></Error>", 404)
        return Response(held[name], headers={"ETag": '"x"', "Last-Modified": "Fri, 27 Nov 2026 12:00:00 GMT"})

    return app


def _unsigned(body: bytes) -> bytes:
    """The content of a body that comes in signed parts; any other as it is."""
    if request.headers.get("X-Amz-Content-Sha256", "").startswith("STREAMING"):
        found, rest = b"", body
        while rest:
            size, _, rest = rest.partition(b"\r\n")
            length = int(size.split(b";")[0], 16)
            found, rest = found + rest[:length], rest[length + 2 :]
        return found
    return body


def _xml(text: str, status: int = 200) -> Response:
    return Response(HEAD + text, status=status, content_type="application/xml")
