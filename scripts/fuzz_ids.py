"""Somebody's session and real ids of a running demo plant, for the requests that are made up."""

import json
import sys
from urllib.request import Request, urlopen

address, who = sys.argv[1:]
account = {"email": f"{who}@skerrow.example", "password": "skerrow-demo"}
sign_in = Request(
    f"{address}/api/v1/session",
    data=json.dumps(account).encode(),
    headers={"content-type": "application/json"},
)
with urlopen(sign_in) as answer:
    headers = {"Cookie": answer.headers["set-cookie"].split(";")[0], "Origin": address}


def get(path):
    with urlopen(Request(f"{address}/api/v1/{path}", headers=headers)) as answer:
        return json.load(answer)


product = get("products/deck-roll-60")
lot = get("lots")["lots"][0]
ids = {
    "slug": product["slug"],
    "lot_id": lot["id"],
    "flour_id": product["flour"]["id"],
    "formula_id": product["formula"]["id"],
    "method_id": product["method"]["id"],
    "line_id": product["line"]["id"],
    "was": product["formula"]["revision"]["id"],
    "is": product["formula"]["revision"]["id"],
}
print("[headers]")
for name, value in headers.items():
    print(f"{name} = {json.dumps(value)}")
print("[parameters]")
for name, value in ids.items():
    print(f"{name} = {json.dumps(value)}")
