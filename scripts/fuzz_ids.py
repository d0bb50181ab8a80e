"""Real ids of a running demo plant, as parameters of the requests that are made up."""

import json
import sys
from urllib.request import urlopen

address = sys.argv[1]


def get(path):
    with urlopen(f"{address}/api/v1/{path}") as answer:
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
print("[parameters]")
for name, value in ids.items():
    print(f"{name} = {json.dumps(value)}")
