// @vitest-environment jsdom
import { describe, expect, it } from "vitest";
import { A_FORM } from "../../testing/a_form";
import { partsOf } from "../../model/parts";
import { gridOf } from "./grid";
import { mapAsSvg } from "./map_svg";
import { laidOut } from "./routes";
import { ruleMap } from "./rule_map";

describe("the map as SVG", () => {
  const form = { ...A_FORM, pages: A_FORM.pages.map((page) => ({ ...page, title: `${page.title} <&> "so"` })) };
  const map = ruleMap(form, partsOf(form), {});
  const svg = mapAsSvg("Rules of A & B", map, laidOut(map, gridOf(map, 3)));
  const page = new DOMParser().parseFromString(svg, "image/svg+xml");

  it("is a well-formed picture with a title, every box and every arrow", () => {
    expect(page.querySelector("parsererror")).toBeNull();
    expect(page.querySelector("title")!.textContent).toBe("Rules of A & B");
    expect(page.querySelectorAll("rect").length).toBe(map.boxes.length);
    expect(page.querySelectorAll("svg > path").length).toBe(map.arrows.length);
  });

  it("holds everything within its edges", () => {
    const [left, top, width, height] = page.documentElement.getAttribute("viewBox")!.split(" ").map(Number);
    for (const rect of page.querySelectorAll("rect")) {
      const [x, y, wide, high] = ["x", "y", "width", "height"].map((name) => Number(rect.getAttribute(name)));
      expect(x).toBeGreaterThanOrEqual(left!);
      expect(x! + wide!).toBeLessThanOrEqual(left! + width!);
      expect(y).toBeGreaterThanOrEqual(top!);
      expect(y! + high!).toBeLessThanOrEqual(top! + height!);
    }
  });
});
