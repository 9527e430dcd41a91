// A chart drawn as SVG: bars with their labels and numbers, columns, a line, or cells. Numbers stand beside every mark,
// so that no colour has to be told apart.
import { useTheme } from "@mui/material/styles";
import type { Ref } from "react";
import type { BarReply, ChartReply } from "../../api/generated/wire";
import type { Drawing } from "./chart_kinds";

interface Props {
  chart: ChartReply;
  drawing: Drawing;
  title: string;
  ref: Ref<SVGSVGElement>;
}

const WIDTH = 420;
const [ROW, LABEL, NUMBERS] = [24, 148, 82];
const [HEIGHT, AXIS, TOP] = [150, 20, 8];
const FONT = '"Source Sans 3 Variable", system-ui, sans-serif';
const DIGITS = '"Source Serif 4 Variable", Georgia, serif';

export function ChartPicture({ chart, drawing, title, ref }: Props) {
  const colours = useColours();
  const Drawn = { bars: Bars, columns: Columns, line: Line, table: Cells }[drawing];
  const height = heightOf(chart, drawing);
  return (
    <svg
      ref={ref}
      viewBox={`0 0 ${WIDTH} ${height}`}
      width="100%"
      role="img"
      aria-label={`${title}: ${chart.headline}`}
      fontFamily={FONT}
      fontSize={12}
      fill={colours.ink}
    >
      <Drawn chart={chart} colours={colours} />
    </svg>
  );
}

function heightOf(chart: ChartReply, drawing: Drawing): number {
  if (drawing === "bars") return Math.max(1, chart.bars.length) * ROW;
  if (drawing === "table") return (chart.rows.length + 1) * ROW + 4;
  return TOP + HEIGHT + AXIS;
}

interface Colours {
  ink: string;
  quiet: string;
  line: string;
  mark: string;
  tint: string;
}

/** Literal colours: a saved picture knows no variables. */
function useColours(): Colours {
  const { palette } = useTheme();
  return {
    ink: palette.text.primary,
    quiet: palette.text.secondary,
    line: palette.divider,
    mark: palette.note.calculation,
    tint: palette.noteTint.calculation,
  };
}

interface DrawnProps {
  chart: ChartReply;
  colours: Colours;
}

const fitted = (text: string, most: number): string => (text.length <= most ? text : `${text.slice(0, most - 1)}…`);

/** How long a mark is: of what is measured, from 0; else of how many. */
function measured(chart: ChartReply): { of: (bar: BarReply) => number; most: number } {
  const of = (bar: BarReply) => (chart.kind === "compared" ? Number(bar.value ?? 0) : bar.count);
  return { of, most: Math.max(0.000001, ...chart.bars.map((bar) => Math.abs(of(bar)))) };
}

function Bars({ chart, colours }: DrawnProps) {
  const { of, most } = measured(chart);
  const room = WIDTH - LABEL - NUMBERS - 8;
  return chart.bars.map((bar, at) => {
    const y = at * ROW;
    const length = (Math.abs(of(bar)) / most) * room;
    return (
      <g key={bar.code}>
        <title>{`${bar.label}: ${bar.value_shown || bar.count}`}</title>
        <text x={0} y={y + 16}>
          {fitted(bar.label, 24)}
        </text>
        <rect
          x={LABEL}
          y={y + 5}
          width={Math.max(length, bar.count ? 1.5 : 0)}
          height={14}
          rx={2}
          fill={colours.mark}
        />
        <text x={WIDTH} y={y + 16} textAnchor="end">
          <tspan fontFamily={DIGITS} fontSize={13}>
            {chart.kind === "compared" ? bar.value_shown : bar.count.toLocaleString("en")}
          </tspan>
          <tspan fill={colours.quiet} fontSize={11}>
            {chart.kind === "compared" ? ` of ${bar.count.toLocaleString("en")}` : ` ${bar.share} %`}
          </tspan>
        </text>
      </g>
    );
  });
}

/** Which of many marks have a word below: so few that they don't run into each other. */
function isNamed(at: number, count: number): boolean {
  const every = Math.ceil(count / 6);
  return at % every === 0;
}

function Columns({ chart, colours }: DrawnProps) {
  const { of, most } = measured(chart);
  const step = WIDTH / Math.max(1, chart.bars.length);
  const numbered = chart.bars.length <= 12;
  return (
    <>
      <line x1={0} x2={WIDTH} y1={TOP + HEIGHT} y2={TOP + HEIGHT} stroke={colours.line} />
      {chart.bars.map((bar, at) => {
        const length = (Math.abs(of(bar)) / most) * (HEIGHT - 14);
        const middle = (at + 0.5) * step;
        return (
          <g key={bar.code}>
            <title>{`${bar.label}: ${bar.value_shown || bar.count}`}</title>
            <rect
              x={at * step + step * 0.08}
              y={TOP + HEIGHT - length}
              width={step * 0.84}
              height={length}
              fill={colours.mark}
            />
            {numbered && (
              <text x={middle} y={TOP + HEIGHT - length - 3} textAnchor="middle" fontFamily={DIGITS}>
                {bar.value_shown || bar.count.toLocaleString("en")}
              </text>
            )}
            {isNamed(at, chart.bars.length) && (
              <text x={middle} y={TOP + HEIGHT + 15} textAnchor="middle" fill={colours.quiet} fontSize={11}>
                {fitted(bar.label, Math.max(3, Math.floor((step * Math.ceil(chart.bars.length / 6)) / 6)))}
              </text>
            )}
          </g>
        );
      })}
    </>
  );
}

function Line({ chart, colours }: DrawnProps) {
  const most = Math.max(1, ...chart.bars.map((bar) => bar.count));
  const step = WIDTH / Math.max(1, chart.bars.length - 1);
  const at = (bar: BarReply, place: number): [number, number] => [
    chart.bars.length === 1 ? WIDTH / 2 : place * step,
    TOP + HEIGHT - (bar.count / most) * (HEIGHT - 14),
  ];
  const peak = chart.bars.reduce((best, bar, place) => (bar.count > chart.bars[best]!.count ? place : best), 0);
  return (
    <>
      <line x1={0} x2={WIDTH} y1={TOP + HEIGHT} y2={TOP + HEIGHT} stroke={colours.line} />
      <polyline
        points={chart.bars.map((bar, place) => at(bar, place).join(",")).join(" ")}
        fill="none"
        stroke={colours.mark}
        strokeWidth={2}
        strokeLinejoin="round"
      />
      {chart.bars.map((bar, place) => {
        const [x, y] = at(bar, place);
        return (
          <g key={bar.code}>
            <title>{`${bar.label}: ${bar.count}`}</title>
            <circle cx={x} cy={y} r={place === peak ? 3.5 : 1.5} fill={colours.mark} />
            {place === peak && (
              <text x={Math.min(WIDTH - 14, Math.max(14, x))} y={y - 6} textAnchor="middle" fontFamily={DIGITS}>
                {bar.count.toLocaleString("en")}
              </text>
            )}
            {(place === 0 || place === chart.bars.length - 1) && (
              <text
                x={x}
                y={TOP + HEIGHT + 15}
                textAnchor={place === 0 ? "start" : "end"}
                fill={colours.quiet}
                fontSize={11}
              >
                {bar.label}
              </text>
            )}
          </g>
        );
      })}
    </>
  );
}

function Cells({ chart, colours }: DrawnProps) {
  const cells = new Map(chart.cells.map((cell) => [`${cell.row}\n${cell.code}`, cell]));
  const step = (WIDTH - LABEL) / Math.max(1, chart.bars.length);
  const room = Math.max(3, Math.floor(step / 6));
  return (
    <>
      {chart.bars.map((bar, at) => (
        <text
          key={bar.code}
          x={LABEL + (at + 0.5) * step}
          y={15}
          textAnchor="middle"
          fill={colours.quiet}
          fontSize={11}
        >
          <title>{bar.label}</title>
          {fitted(bar.label, room)}
        </text>
      ))}
      {chart.rows.map((row, place) => (
        <g key={row.code}>
          <text x={0} y={(place + 1) * ROW + 16}>
            <title>{row.label}</title>
            {fitted(row.label, 24)}
          </text>
          {chart.bars.map((bar, at) => {
            const cell = cells.get(`${row.code}\n${bar.code}`);
            const share = Number(cell?.share ?? 0);
            const x = LABEL + at * step;
            return (
              <g key={bar.code}>
                <title>{`${row.label}, ${bar.label}: ${cell?.count ?? 0} (${share} %)`}</title>
                <rect
                  x={x + 1}
                  y={(place + 1) * ROW + 1}
                  width={step - 2}
                  height={ROW - 2}
                  rx={2}
                  fill={colours.tint}
                />
                <rect
                  x={x + 1}
                  y={(place + 1) * ROW + ROW - 4}
                  width={((step - 2) * share) / 100}
                  height={3}
                  fill={colours.mark}
                />
                <text x={x + step / 2} y={(place + 1) * ROW + 15} textAnchor="middle" fontFamily={DIGITS}>
                  {cell?.count ?? 0}
                </text>
              </g>
            );
          })}
        </g>
      ))}
    </>
  );
}
