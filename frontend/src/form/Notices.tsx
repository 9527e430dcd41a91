// What the form says of itself beside its questions: answers that are here again, what is not paid, how the server is reached.
import { say } from "../text/visitor";
import { inFrame } from "./host";
import type { FormSession } from "./session";
import type { Line, Snapshot } from "./snapshot";
import { unpaidPage } from "./unpaid";

/** That answers of an earlier visit are here again, what is new since, and the ways to others. */
export function Restored({ session, snapshot }: { session: FormSession; snapshot: Snapshot }) {
  const { restored: back, keptOn, here, news } = snapshot;
  // What others gave this page to go on with was never begun here.
  const restored = back && keptOn !== "";
  if (!restored) return null;
  return (
    <div className="cx-restored">
      {keptOn === null ? say("restored") : say("laterAgain", { moment: keptOn })} <News news={news} />
      {here && (
        <button type="button" className="cx-clear" onClick={() => session.showHere()}>
          {say("laterHere")}
        </button>
      )}
      <button type="button" className="cx-clear" onClick={() => session.startAgain()}>
        {say("startAgain")}
      </button>
    </div>
  );
}

/** What was changed in the form since the visitor began. */
function News({ news }: { news: readonly string[] }) {
  if (news.length === 0) return null;
  return (
    <>
      {say("changedSince")}
      <ul>
        {news.map((each) => (
          <li key={each}>{each}</li>
        ))}
      </ul>
    </>
  );
}

/** What the visitor handed in on this device and has not paid: where that goes on. */
export function Unpaid({ form }: { form: string }) {
  const page = unpaidPage(form);
  if (!page) return null;
  const framed = location.pathname.startsWith("/embed/");
  return (
    <p className="cx-restored">
      {say("payLeft")} <a href={framed ? inFrame(page) : page}>{say("payGoOn")}</a>
    </p>
  );
}

/** How the server is reached, where that is not as it should be, and what the form does about it. */
export function LineNews({ session, snapshot: { line, phase } }: { session: FormSession; snapshot: Snapshot }) {
  const news: Record<Line, string> = {
    fine: "",
    slow: say("slow"),
    away: phase === "sending" ? say("awaySending") : say("awayFilling"),
    lost: say("lost"),
  };
  return (
    <p className="cx-away" role="status">
      {news[line]}
      {line === "lost" && (
        <>
          {" "}
          <button type="button" className="cx-clear" onClick={() => session.hurry()}>
            {say("tryAgain")}
          </button>
        </>
      )}
    </p>
  );
}
