// Who else has the form open, asked for every few seconds; and word that somebody saved or published.
import { useEffect, useLayoutEffect, useRef, useState } from "react";
import { api } from "../../api/client";
import type { PresentReply } from "../../api/generated/wire";
import { newId } from "../../model/new_block";

const EVERY_MS = 4_000;

const NAME = "codexa-tab";

/** What tells this tab from others; the same after it was loaded anew, or one would meet oneself. */
function thisTab(): string {
  const tab = sessionStorage.getItem(NAME) ?? newId();
  sessionStorage.setItem(NAME, tab);
  return tab;
}

export function usePresence(
  form: string,
  area: string,
  part: string | null,
  onNews: (revision: number, liveEdition: number | null) => void,
): readonly PresentReply[] {
  const [people, setPeople] = useState<readonly PresentReply[]>([]);
  const [tab] = useState(thisTab);
  const latest = useRef({ area, part, onNews });
  useLayoutEffect(() => {
    latest.current = { area, part, onNews };
  });
  useEffect(() => {
    const tell = async () => {
      const { area, part, onNews } = latest.current;
      // Being away is told by saving; being here can wait for the next time.
      const reply = await api.presence(form, { tab, area, part }).catch(() => null);
      if (!reply) return;
      setPeople((before) => (JSON.stringify(before) === JSON.stringify(reply.people) ? before : reply.people));
      onNews(reply.revision, reply.live_edition);
    };
    void tell();
    const timer = setInterval(() => void tell(), EVERY_MS);
    return () => {
      clearInterval(timer);
      void api.leave(form, tab).catch(() => undefined);
    };
  }, [form, tab]);
  return people;
}
