// Files on their way and arrived: progress, small pictures, removing, trying again.
import { useEffect, useRef, useState } from "react";
import type { FileFace, FileUploadFace, UploadReply } from "../../api/generated/wire";
import { say, sayChooseFiles, sayShare } from "../../text/visitor";
import { RefusedError } from "../../form/transport";
import { type InputProps, listOf, useTools } from "../input";
import { smallPicture } from "../small_picture";
import { PICTURES } from "./pictures";

interface Sent {
  key: number;
  file: File;
  share: number;
  problem: string | null;
  stop: AbortController;
}

// What was sent in this visit, by id: an answer holds ids alone.
const known = new Map<string, UploadReply>();
let keys = 0;

/** A file of an earlier visit, as the core knows it. */
const seen = (file: FileFace | undefined): Pick<UploadReply, "name" | "thumbnail"> | undefined =>
  file && {
    name: file.name,
    thumbnail: PICTURES.has(file.type) ? smallPicture(file.id) : null,
  };

const ACCEPT: Record<Exclude<FileUploadFace["kinds"][number], "picture">, string> = {
  pdf: ".pdf",
  document: ".docx,.odt,.doc,.rtf,.txt",
  table: ".xlsx,.ods,.xls,.csv",
  sound: "audio/*",
  film: "video/*",
  archive: ".zip",
};

/** What a browser offers to choose; what a file is, the server finds in it. */
const accepted = ({ kinds, picture_types }: FileUploadFace): string =>
  kinds
    .map((kind) => (kind === "picture" ? picture_types.map((type) => `image/${type}`).join(",") : ACCEPT[kind]))
    .filter(Boolean)
    .join(",");

export default function FileList(props: InputProps<FileUploadFace>) {
  const { block, controlId, answer, facts, describedBy, invalid, required, locked, onChange } = props;
  const { upload, waitFor, waitNoMore } = useTools();
  const [sending, setSending] = useState<readonly Sent[]>([]);
  // How many of those chosen last were more than may be sent.
  const [leftOut, setLeftOut] = useState(0);
  const ids = listOf(answer).filter((each): each is string => typeof each === "string");
  const latest = useRef(ids);
  latest.current = ids;
  const change = (next: readonly string[]) => {
    latest.current = [...next];
    onChange(next.length > 0 ? next : null);
  };
  const failed = useRef(new Set<number>());
  const here = useRef(true);
  useEffect(() => {
    const gone = failed.current;
    here.current = true;
    // A file that failed can only be sent again from here; one on its way arrives even if its page was left.
    return () => {
      here.current = false;
      gone.forEach(waitNoMore);
    };
  }, [waitNoMore]);
  const update = (key: number, changes: Partial<Sent>) =>
    setSending((before) => before.map((each) => (each.key === key ? { ...each, ...changes } : each)));
  const send = async (sent: Sent) => {
    update(sent.key, { problem: null, share: 0 });
    failed.current.delete(sent.key);
    waitFor(sent.key);
    try {
      const arrived = await upload!(block.id, sent.file, (share) => update(sent.key, { share }), sent.stop.signal);
      known.set(arrived.id, arrived);
      drop(sent);
      change([...latest.current, arrived.id]);
    } catch (error) {
      if (!here.current) return waitNoMore(sent.key);
      failed.current.add(sent.key);
      // One that was refused does not arrive however long one waits.
      waitFor(sent.key, error instanceof RefusedError);
      update(sent.key, { problem: error instanceof Error ? error.message : String(error) });
    }
  };
  const drop = (sent: Sent) => {
    waitNoMore(sent.key);
    setSending((before) => before.filter((each) => each.key !== sent.key));
  };
  const take = (files: FileList | readonly File[] | null) => {
    const room = block.most - ids.length - sending.length;
    const fresh = [...(files ?? [])].slice(0, Math.max(0, room));
    setLeftOut((files?.length ?? 0) - fresh.length);
    const sent = fresh.map((file) => ({ key: ++keys, file, share: 0, problem: null, stop: new AbortController() }));
    setSending((before) => [...before, ...sent]);
    sent.forEach((each) => void send(each));
  };
  const fileOf = (id: string) => known.get(id) ?? seen(facts.files?.find((file) => file.id === id));
  const full = ids.length + sending.length >= block.most;
  return (
    <div className="cx-files">
      {!full && !locked && (
        <label
          className="cx-drop"
          data-invalid={invalid || undefined}
          onDragOver={(event) => event.preventDefault()}
          onDrop={(event) => {
            event.preventDefault();
            take(event.dataTransfer.files);
          }}
        >
          <input
            id={controlId}
            type="file"
            multiple={block.most > 1}
            accept={accepted(block)}
            disabled={!upload}
            aria-labelledby={`${controlId}-label ${controlId}-choose`}
            aria-describedby={describedBy}
            aria-required={required || undefined}
            onChange={(event) => {
              take(event.target.files);
              event.target.value = "";
            }}
          />
          <span id={`${controlId}-choose`}>
            <strong>{sayChooseFiles(block.most)}</strong> {say("orDrop")}
          </span>
        </label>
      )}
      {leftOut > 0 && (
        <p className="cx-error" role="alert">
          {say("filesTooMany", { most: block.most, count: leftOut })}
        </p>
      )}
      <ul>
        {ids.map((id) => (
          <li key={id}>
            {fileOf(id)?.thumbnail ? <img src={fileOf(id)!.thumbnail!} alt="" /> : <span className="cx-file" />}
            <span>{fileOf(id)?.name ?? say("uploaded")}</span>
            {!locked && (
              <button
                type="button"
                aria-label={`${say("remove")} ${fileOf(id)?.name ?? ""}`}
                onClick={() => change(ids.filter((each) => each !== id))}
              >
                {say("remove")}
              </button>
            )}
          </li>
        ))}
        {sending.map((sent) => (
          <li key={sent.key}>
            <span className="cx-file" />
            <span>
              {sent.file.name}
              {sent.problem ? (
                <span className="cx-error" role="alert">
                  {sent.problem}
                </span>
              ) : (
                <progress value={sent.share} max={1} aria-label={sent.file.name}>
                  {sayShare("uploading", sent.share)}
                </progress>
              )}
            </span>
            {sent.problem && (
              <button type="button" onClick={() => void send(sent)}>
                {say("tryAgain")}
              </button>
            )}
            <button
              type="button"
              aria-label={`${say("remove")} ${sent.file.name}`}
              onClick={() => {
                sent.stop.abort();
                drop(sent);
              }}
            >
              {say("remove")}
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}
