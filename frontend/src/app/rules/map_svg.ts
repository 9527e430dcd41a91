// The map as a picture of its own, in SVG, to keep and to print: the same boxes and lines, without a program around.
import { BOX, type Layout } from "./routes";
import type { MapBox, RuleMap } from "./rule_map";
import { rounded } from "./rounded";

const MARGIN = 16;
const SIZE = 12;
const LETTER = SIZE * 0.55; // how wide a letter is, about
const LINES = 2;
const STROKES: Record<MapBox["what"], string> = {
  page: "#0F6E66",
  block: "#5B6472",
  figure: "#7A4FA3",
  confirmation: "#16202B",
  follow_up: "#16202B",
  end: "#16202B",
};

const escaped = (text: string): string =>
  text.replaceAll("&", "&amp;").replaceAll("<", "&lt;").replaceAll(">", "&gt;").replaceAll('"', "&quot;");

/** Words in lines of so many letters; what is left over ends in an ellipsis. */
function inLines(text: string, most: number): string[] {
  const lines = [""];
  for (const word of text.split(/\s+/)) {
    const longer = `${lines.at(-1)} ${word}`.trim();
    if (longer.length <= most) lines[lines.length - 1] = longer;
    else lines.push(word);
  }
  const kept = lines.filter(Boolean).slice(0, LINES);
  const isCut = lines.filter(Boolean).length > LINES;
  return kept.map((line, at) => {
    const ends = isCut && at === LINES - 1;
    return line.length > most || ends ? `${line.slice(0, most - 1)}…` : line;
  });
}

function words(lines: readonly string[], x: number, y: number, more = ""): string {
  const top = y - ((lines.length - 1) * (SIZE + 3)) / 2;
  return lines
    .map((line, at) => `<text x="${x}" y="${top + at * (SIZE + 3)}" ${more}>${escaped(line)}</text>`)
    .join("");
}

/** An SVG document of the map, with its title for whoever hears it. */
export function mapAsSvg(title: string, map: RuleMap, { places, routes, width }: Layout): string {
  const bottom = Math.max(0, ...[...places.values()].map(({ y }) => y + BOX.height));
  const full = { width: width + 2 * MARGIN, height: bottom + 2 * MARGIN };
  const arrows = map.arrows.flatMap((arrow) => {
    const route = routes.get(arrow.id);
    if (!route) return [];
    const dashes = arrow.kind === "holds" ? ' stroke-dasharray="3 3"' : ' marker-end="url(#point)"';
    const { x, y, width: room } = route.label;
    const label = arrow.label ? inLines(arrow.label, Math.max(6, Math.floor(room / LETTER))).slice(0, 1) : [];
    const line = `<path d="${rounded(route.points)}" fill="none" stroke="#5B6472"${dashes}/>`;
    return [line + words(label, x, y, 'text-anchor="middle" paint-order="stroke" stroke="#FFFFFF" stroke-width="4"')];
  });
  const boxes = map.boxes.flatMap((box) => {
    const place = places.get(box.id);
    if (!place) return [];
    const size = `x="${place.x}" y="${place.y}" width="${BOX.width}" height="${BOX.height}" rx="6"`;
    const lines = inLines(`${box.number} ${box.title}`.trim(), Math.floor((BOX.width - 16) / LETTER));
    return [
      `<rect ${size} fill="#FFFFFF" stroke="${STROKES[box.what]}" stroke-width="1.5"/>`,
      words(lines, place.x + 8, place.y + BOX.height / 2),
    ];
  });
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" role="img" width="${full.width}" height="${full.height}" `,
    `viewBox="${-MARGIN} ${-MARGIN} ${full.width} ${full.height}" font-family="sans-serif" font-size="${SIZE}" `,
    `fill="#16202B" dominant-baseline="central"><title>${escaped(title)}</title>`,
    '<defs><marker id="point" viewBox="0 0 8 8" refX="8" refY="4" markerWidth="8" markerHeight="8" orient="auto">',
    '<path d="M 0 0 L 8 4 L 0 8 z" fill="#5B6472"/></marker></defs>',
    ...arrows,
    ...boxes,
    "</svg>",
  ].join("");
}

/** Hands a picture over as a file. */
export function saveSvg(name: string, svg: string): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([svg], { type: "image/svg+xml" }));
  link.download = `${name}.svg`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

/** Prints a picture by itself, on one page; the browser's print sheet keeps it as PDF, too. */
export function printSvg(svg: string): void {
  const frame = document.createElement("iframe");
  // Not hidden: some browsers print nothing of what is.
  Object.assign(frame.style, { position: "fixed", width: "0", height: "0", border: "0" });
  frame.title = "The map, to print";
  document.body.append(frame);
  const page = frame.contentDocument!;
  page.body.innerHTML = svg;
  const picture = page.querySelector("svg")!;
  picture.setAttribute("width", "100%");
  picture.removeAttribute("height");
  frame.contentWindow!.addEventListener("afterprint", () => frame.remove());
  frame.contentWindow!.print();
}
