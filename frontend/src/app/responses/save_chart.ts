// A chart saved to a file: as SVG, as PNG twice as large, or its numbers as CSV.
import type { ChartReply } from "../../api/generated/wire";
import { asCsv, cellsOf } from "./chart_kinds";

const SCALE = 2;

export function save(content: Blob, name: string): void {
  const address = URL.createObjectURL(content);
  const link = document.createElement("a");
  link.href = address;
  link.download = name;
  link.click();
  URL.revokeObjectURL(address);
}

export const saveCsv = (chart: ChartReply, name: string): void =>
  save(new Blob([asCsv(cellsOf(chart))], { type: "text/csv" }), `${name}.csv`);

/** The picture as a document of its own, on the paper's colour, with its size. */
export function svgText(picture: SVGSVGElement, paper: string): string {
  const copy = picture.cloneNode(true) as SVGSVGElement;
  const [, , width, height] = (picture.getAttribute("viewBox") ?? "0 0 0 0").split(" ");
  copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
  copy.setAttribute("width", width!);
  copy.setAttribute("height", height!);
  const ground = document.createElementNS("http://www.w3.org/2000/svg", "rect");
  for (const [name, value] of Object.entries({ width: width!, height: height!, fill: paper }))
    ground.setAttribute(name, value);
  copy.prepend(ground);
  return new XMLSerializer().serializeToString(copy);
}

export const saveSvg = (picture: SVGSVGElement, paper: string, name: string): void =>
  save(new Blob([svgText(picture, paper)], { type: "image/svg+xml" }), `${name}.svg`);

export async function savePng(picture: SVGSVGElement, paper: string, name: string): Promise<void> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svgText(picture, paper))}`;
  await image.decode();
  const canvas = document.createElement("canvas");
  canvas.width = image.naturalWidth * SCALE;
  canvas.height = image.naturalHeight * SCALE;
  canvas.getContext("2d")!.drawImage(image, 0, 0, canvas.width, canvas.height);
  const content = await new Promise<Blob | null>((done) => canvas.toBlob(done, "image/png"));
  if (content) save(content, `${name}.png`);
}
