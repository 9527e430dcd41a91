// Help is found by the words that people use, and says where everything is.
import { describe, expect, it } from "vitest";
import { AREAS, HISTORY } from "../workbench/areas";
import { answers, AREA_HELP, TOPICS } from "./topics";

const found = (search: string) => TOPICS.filter((topic) => answers(topic, search)).map(({ id }) => id);

describe("help", () => {
  it.each([
    ["how do i hide a field", "show_when"],
    ["required", "require"],
    ["skip page", "next_page"],
    ["calculate a total", "total"],
    ["scoring", "quiz"],
    ["thank you page", "confirmation"],
    ["embed on my website", "publish"],
    ["export to excel", "export"],
    ["dependent dropdown", "options"],
  ])("is found by %j", (search, topic) => {
    expect(found(search)).toContain(topic);
  });

  it("says nothing where nothing is asked, or nothing fits", () => {
    expect([found("how do i"), found("zeppelin")]).toEqual([[], []]);
  });

  it("has a line for every area, and leads to areas that there are", () => {
    const areas = [...AREAS.map(({ name }) => name), HISTORY.name, "preview"];
    expect(Object.keys(AREA_HELP).sort()).toEqual([...areas].sort());
    for (const { area, steps } of TOPICS) {
      expect(areas).toContain(area);
      expect(steps.length).toBeGreaterThan(0);
    }
  });
});
