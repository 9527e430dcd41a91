// The map: boxes for pages, answers, figures and confirmations; arrows for what leads where. Walking it lights the path.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { visuallyHidden } from "@mui/utils";
import {
  Background,
  BaseEdge,
  Controls,
  type Edge,
  EdgeLabelRenderer,
  type EdgeProps,
  MarkerType,
  type Node,
  type NodeProps,
  Position,
  ReactFlow,
  ReactFlowProvider,
  useReactFlow,
  useStore,
} from "@xyflow/react";
import "@xyflow/react/dist/base.css";
import { memo, useEffect, useMemo } from "react";
import { SERIF } from "../../theme/theme";
import { useStable } from "../../ui/useStable";
import { useBench } from "../workbench/bench";
import { useOpenPart } from "../workbench/useOpenPart";
import { useOutcome } from "../workbench/useOutcome";
import { gridOf } from "./grid";
import { litBy, type MapArrow, type MapBox, ruleMap } from "./rule_map";
import { mapAsSvg, printSvg, saveSvg } from "./map_svg";
import { type Band, BOX, laidOut, type Route } from "./routes";
import { rounded } from "./rounded";
import "./rules.css";

const EDGE = 8;
/** What the panel to walk with covers of the right side. */
const PANEL = 284;
const PADDING = { top: `${EDGE}px`, bottom: `${EDGE}px`, left: `${EDGE}px`, right: `${PANEL}px` } as const;
/** Smaller than this, the words on the boxes can't be read; then one begins at the top left and goes on from there. */
const READABLE = 0.85;
/** A column of the map with a usual gutter. */
const COLUMN = BOX.width + 36;
const MOST_COLUMNS = 6;
// Told, not measured: to measure a hundred boxes would lay the page out anew, twice.
const JOINTS: NonNullable<Node["handles"]> = [
  { type: "target", position: Position.Top, x: BOX.width / 2, y: 0 },
  { type: "source", position: Position.Bottom, x: BOX.width / 2, y: BOX.height },
];
/** From so many boxes on only those in sight are drawn. */
const MANY = 60;
const PLAIN = { bgcolor: "background.paper", borderColor: "divider" } as const;

type BoxData = {
  box: MapBox;
  lit: boolean;
  value: string;
  chosen: boolean;
  point: (id: string) => void;
  /** Leads to it; nothing where it is no part of the form. */
  open: ((id: string) => void) | null;
};
type BoxNode = Node<BoxData, "box">;
type BandNode = Node<{ band: Band }, "band">;
type ArrowEdge = Edge<{ route: Route; arrow: MapArrow; lit: boolean }, "arrow">;

interface Props {
  /** What is pointed at in the list of rules, or "". */
  highlighted: string;
  onPoint: (part: string) => void;
}

export function DecisionMap(props: Props) {
  return (
    <ReactFlowProvider>
      <DrawnMap {...props} />
    </ReactFlowProvider>
  );
}

function DrawnMap({ highlighted, onPoint }: Props) {
  const { form, analysed, analysis, parts } = useBench();
  const outcome = useOutcome();
  const open = useStable(useOpenPart());
  const flow = useReactFlow();
  const map = useMemo(() => ruleMap(analysed, parts, analysis.notes), [analysed, parts, analysis.notes]);
  const room = useStore(({ width }) => width) - PANEL - EDGE;
  const columns = Math.min(MOST_COLUMNS, Math.max(2, Math.floor(room / READABLE / COLUMN) - 1));
  const shape = JSON.stringify(map);
  // Laid out anew only when something else is on it: a label that is typed moves nothing.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const layout = useMemo(() => laidOut(map, gridOf(map, columns)), [shape, columns]);
  const { places } = layout;
  const picture = () => mapAsSvg(`Rules of ${form.name}`, map, layout);
  const hidden = useMemo(() => new Set(outcome?.outcome.hidden ?? []), [outcome]);
  const lit = useMemo(() => litBy(map, outcome, (id) => !hidden.has(id)), [map, outcome, hidden]);
  const nodes: BoxNode[] = map.boxes.map((box) => ({
    id: box.id,
    type: "box",
    position: places.get(box.id) ?? { x: 0, y: 0 },
    // A node that is new and not measured is hidden until it is: whoever is on it by keyboard would be thrown off.
    measured: BOX,
    handles: JOINTS,
    // Above the arrows that are lit.
    zIndex: highlighted === box.id ? 3 : 2,
    data: {
      box,
      lit: lit.has(box.id),
      value: outcome?.values[box.id] ?? "",
      chosen: highlighted === box.id,
      point: onPoint,
      open: parts.has(box.id) ? open : null,
    },
  }));
  const bands: BandNode[] = [...layout.bands].map(([id, band]) => ({
    id: `band ${id}`,
    type: "band",
    position: band,
    measured: band,
    handles: [],
    zIndex: -1,
    data: { band },
  }));
  const edges: ArrowEdge[] = map.arrows.flatMap((arrow): ArrowEdge[] => {
    const route = layout.routes.get(arrow.id);
    if (!route) return [];
    const on = lit.has(arrow.id);
    const near = highlighted !== "" && (arrow.from === highlighted || arrow.to === highlighted);
    return [
      {
        id: arrow.id,
        source: arrow.from,
        target: arrow.to,
        type: "arrow",
        className: `rm-arrow rm-${arrow.kind}${on ? " rm-lit" : ""}${near ? " rm-near" : ""}`,
        data: { route, arrow, lit: on },
        ...(arrow.kind === "holds"
          ? {}
          : {
              markerEnd: {
                type: MarkerType.ArrowClosed,
                width: 14,
                height: 14,
                color: on ? "var(--mui-palette-note-rule)" : "var(--mui-palette-text-secondary)",
              },
            }),
        focusable: false,
        ariaLabel: inWords(arrow, map.boxes),
        zIndex: on || near ? 1 : 0,
      },
    ];
  });
  const height = useStore((store) => store.height);
  const show = useStable((place: { x: number; y: number }) => {
    const { x, y, zoom } = flow.getViewport();
    const [left, top] = [place.x * zoom + x, place.y * zoom + y];
    const isInSight = left >= 0 && top >= 0 && left + BOX.width * zoom <= room && top + BOX.height * zoom <= height;
    if (isInSight) return;
    // In the middle of what the panel leaves free.
    const middle = { x: place.x + BOX.width / 2 + PANEL / 2 / zoom, y: place.y + BOX.height / 2 };
    void flow.setCenter(middle.x, middle.y, { zoom, duration: 200 });
  });
  useEffect(() => {
    const place = places.get(highlighted);
    if (place) show(place);
  }, [highlighted, places, show]);
  const beginAtTop = () => {
    const zoom = Math.min(1, Math.max(READABLE, room / layout.width));
    void flow.setViewport({ x: EDGE + Math.max(0, (room - layout.width * zoom) / 2), y: EDGE, zoom });
  };
  const begin = useStable(beginAtTop);
  // The room is known only once the map is drawn, and may change with the window.
  useEffect(() => void begin(), [columns, begin]);
  return (
    <Box sx={{ position: "absolute", inset: 0 }}>
      <Box sx={{ position: "absolute", left: 48, bottom: 12, zIndex: 5, display: "flex", gap: 1 }}>
        <Button
          size="small"
          variant="outlined"
          color="inherit"
          onClick={() => saveSvg(form.name, picture())}
          sx={PLAIN}
        >
          Save as SVG
        </Button>
        <Button size="small" variant="outlined" color="inherit" onClick={() => printSvg(picture())} sx={PLAIN}>
          Print, or keep as PDF
        </Button>
      </Box>
      <ReactFlow
        nodes={[...bands, ...nodes]}
        edges={edges}
        nodeTypes={NODE_TYPES}
        edgeTypes={EDGE_TYPES}
        nodesDraggable={false}
        nodesFocusable={false}
        nodesConnectable={false}
        edgesFocusable={false}
        elementsSelectable={false}
        onlyRenderVisibleElements={nodes.length > MANY}
        onInit={beginAtTop}
        panOnScroll
        minZoom={0.1}
        maxZoom={1.5}
        proOptions={{ hideAttribution: true }}
        aria-label="Decision map"
      >
        <Background gap={24} color="var(--mui-palette-divider)" />
        <Controls showInteractive={false} fitViewOptions={{ maxZoom: 1, minZoom: 0.3, padding: PADDING }} />
      </ReactFlow>
    </Box>
  );
}

/** What an arrow joins, for whoever hears the map: "From 1.2 Adults to 1.5 Name of the group: is more than 12". */
function inWords({ from, to, label }: MapArrow, boxes: readonly MapBox[]): string {
  const name = (id: string) => {
    const box = boxes.find((each) => each.id === id);
    return box ? `${box.number} ${box.title}`.trim() : "";
  };
  return `From ${name(from)} to ${name(to)}${label && `: ${label}`}`;
}

const BoxOnMap = memo(function BoxOnMap({ data }: NodeProps<BoxNode>) {
  const { box, lit, value, chosen, point, open } = data;
  return (
    <div className={`rm-box rm-${box.what}`} data-lit={lit || undefined} data-chosen={chosen || undefined}>
      <button
        type="button"
        className="rm-point"
        aria-pressed={chosen}
        onClick={() => point(box.id)}
        onDoubleClick={() => open?.(box.id)}
      >
        <span className="rm-title">
          <span style={{ fontFamily: SERIF }}>{box.number}</span> {box.title}
        </span>
        {value && <span className="rm-value">{value}</span>}
        {lit && <span style={visuallyHidden}>, on the way</span>}
      </button>
      {chosen && open && (
        <button
          type="button"
          className="rm-open"
          aria-label={`Go to ${`${box.number} ${box.title}`.trim()}`}
          onClick={() => open(box.id)}
        >
          Go there
        </button>
      )}
    </div>
  );
});

const BandOnMap = memo(function BandOnMap({ data }: NodeProps<BandNode>) {
  return <div className="rm-band" style={{ width: data.band.width, height: data.band.height }} />;
});

const ArrowOnMap = memo(function ArrowOnMap({ data, markerEnd }: EdgeProps<ArrowEdge>) {
  const { route, arrow, lit } = data!;
  const { x, y, width } = route.label;
  return (
    <>
      <BaseEdge path={rounded(route.points)} {...(markerEnd ? { markerEnd } : {})} />
      {arrow.label && (
        <EdgeLabelRenderer>
          <div
            className="rm-label"
            data-lit={lit || undefined}
            title={arrow.label}
            style={{ transform: `translate(-50%, -50%) translate(${x}px, ${y}px)`, maxWidth: width }}
          >
            {arrow.label}
          </div>
        </EdgeLabelRenderer>
      )}
    </>
  );
});

const NODE_TYPES = { box: BoxOnMap, band: BandOnMap };
const EDGE_TYPES = { arrow: ArrowOnMap };
