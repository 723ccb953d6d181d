"""A panel through the endpoints: chosen, drawn, written, read back, priced, and taken back."""

from fastapi.testclient import TestClient

from tests.api.test_api import BRIEF, edit, run


def test_a_panel_is_chosen_drawn_proven_and_priced(client: TestClient) -> None:
    head = client.post("/api/projects", json={**BRIEF, "name": "Pod on plates"}).json()
    project = head["project"]
    asked = {"by": "tabs", "columns": 2, "rows": 1, "rail_mm": 5}
    head = edit(client, head, kind="choose-panel", panel=asked).json()
    early = client.get(f"/api/projects/{project}/panel")
    assert (early.status_code, "not placed" in early.json()["sentence"]) == (404, True)
    assert run(client, project, "everything")["state"] == "done"
    # 70 + 2 + 70 by 5 + 2 + 40 + 2 + 5 mm; 5 devices need three panels of 2
    shown = client.get(f"/api/projects/{project}/panel").json()
    assert (shown["width_mm"], shown["height_mm"]) == (142, 54)
    assert shown["copies"] == [[0, 7], [72, 7]]
    assert {f["title"]: f["value"] for f in shown["figures"]} == {
        "Width": 142,
        "Height": 54,
        "Panels needed": 3,
        "Boards that come": 6,
    }
    assert (shown["tabs"], shown["troubles"], shown["scores"]) == (8, [], [])
    # an octagon of eight lines less what tabs open, twice, and the rails and flanks: every line has
    # two ends
    assert all(len(line) == 2 for line in shown["milled"])
    assert {h["kind"] for h in shown["holes"]} == {"tab", "tooling"}
    assert run(client, project, "release")["message"] == "The files are written and proven."
    release = client.get(f"/api/projects/{project}/release").json()
    assert next(f["value"] for f in release["proof"] if f["unit"] == "copies on panels") == 2
    layer = client.get(f"/api/releases/{release['id']}/layers/panel/profile.gbr").json()
    assert layer["function"] == "Profile,NP"
    assert max(x for _, _, x, _, _ in layer["strokes"]) == 142
    quotes = {q["house"]: q for q in client.get(f"/api/projects/{project}/quotes").json()}
    # 3 panels of 142 x 54 mm at 260 cents a dm²: 598 cents
    lines = {w["title"]: w["value"] for w in quotes["millrace"]["lines"]}
    assert lines["3 panels of 2: 6 boards"] == 598
    assert lines["panel parted by tabs"] == 1100
    assert quotes["ropewalk"]["complaints"] == ["Panels parted by tabs are not made here."]
    head = client.get(f"/api/projects/{project}").json()
    bad = edit(client, head, kind="choose-panel", panel={**asked, "rail_mm": 2})
    assert bad.status_code == 422
    head = edit(client, head, kind="choose-panel", panel=None).json()
    assert client.get(f"/api/projects/{project}/panel").json() is None
    assert head["stale"] == [], "the board itself is as it was"
