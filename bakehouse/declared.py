"""What every endpoint may answer when something is wrong, said once for all of them."""

from __future__ import annotations

from typing import Any

from pydantic import TypeAdapter

from bakehouse.documents import Problem

_SAYS = {
    400: "This cannot be understood.",
    401: "Nobody is signed in.",
    403: "This person may not do that.",
    404: "There is nothing of this name.",
    405: "Not in this way.",
    409: "Somebody else changed it meanwhile.",
    422: "A field is at fault; each is named.",
    429: "Too often: wait a while.",
}
_REF = "#/components/schemas/{model}"


def declare_problems(schema: dict[str, Any]) -> None:
    """Add to an OpenAPI document the answers that the handlers of faults give, endpoint by endpoint."""
    kinds = schema["components"]["schemas"]
    made = TypeAdapter(Problem).json_schema(ref_template=_REF)
    kinds.update({name: kinds.get(name, of) for name, of in made.pop("$defs", {}).items()})
    kinds.setdefault("Problem", made)
    content = {"application/json": {"schema": {"$ref": _REF.format(model="Problem")}}}
    schema["components"]["responses"] = {
        f"Problem{status}": {"description": says, "content": content}
        for status, says in _SAYS.items()
    }
    for methods in schema["paths"].values():
        for method, operation in methods.items():
            for status in _may_answer(method, operation):
                said = {"$ref": f"#/components/responses/Problem{status}"}
                operation["responses"].setdefault(status, said)


def _may_answer(method: str, operation: dict[str, Any]) -> set[int]:
    found = {400, 404, 405}
    if operation.get("security"):
        found |= {401, 403}
    if method != "get":
        found |= {403, 429}
    if operation.get("parameters") or "requestBody" in operation:
        found.add(422)
    if method in ("put", "post") and "requestBody" in operation:
        found.add(409)
    return found
