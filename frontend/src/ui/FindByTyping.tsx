// A list found by typing: arrows choose, Enter takes; groups have a heading.
import Box from "@mui/material/Box";
import InputBase from "@mui/material/InputBase";
import Typography from "@mui/material/Typography";
import { type KeyboardEvent, useId, useState } from "react";

export interface Listed {
  id: string;
  group: string;
  title: string;
  detail: string;
}

interface Props<Item extends Listed> {
  /** What a search finds, best first. */
  find: (search: string) => readonly Item[];
  onPick: (item: Item) => void;
  /** Told of what is looked for, where more is found elsewhere. */
  onSearch?: (search: string) => void;
  /** What the box asks for, what it is called, and what its list is called. */
  words: { placeholder: string; box: string; list: string; nothing: string };
}

export function FindByTyping<Item extends Listed>({ find, onPick, onSearch, words }: Props<Item>) {
  const [search, setSearch] = useState("");
  const [active, setActive] = useState(0);
  const id = useId();
  const found = find(search);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === "ArrowDown" || event.key === "ArrowUp") {
      event.preventDefault();
      const next = Math.max(0, Math.min(found.length - 1, active + (event.key === "ArrowDown" ? 1 : -1)));
      setActive(next);
      document.getElementById(`${id}-${next}`)?.scrollIntoView({ block: "nearest" });
    }
    if (event.key === "Enter" && found[active]) {
      event.preventDefault();
      onPick(found[active]);
    }
  };
  return (
    <>
      <InputBase
        autoFocus
        fullWidth
        placeholder={words.placeholder}
        value={search}
        onChange={(event) => {
          setSearch(event.target.value);
          setActive(0);
          onSearch?.(event.target.value);
        }}
        onKeyDown={onKeyDown}
        inputProps={{
          role: "combobox",
          "aria-label": words.box,
          "aria-expanded": true,
          "aria-controls": id,
          "aria-activedescendant": found[active] ? `${id}-${active}` : undefined,
        }}
        sx={{ px: 2, py: 1, borderBottom: 1, borderColor: "divider" }}
      />
      <Box id={id} role="listbox" aria-label={words.list} sx={{ py: 1, maxHeight: 400, overflow: "auto" }}>
        {found.map((item, index) => (
          <Box key={item.id} role="presentation">
            {item.group !== found[index - 1]?.group && (
              <Typography
                variant="caption"
                role="presentation"
                sx={{ display: "block", px: 2, pt: 1, pb: 0.25, fontWeight: 650, color: "text.secondary" }}
              >
                {item.group}
              </Typography>
            )}
            <Box
              id={`${id}-${index}`}
              role="option"
              aria-selected={index === active}
              onMouseMove={() => setActive(index)}
              onClick={() => onPick(item)}
              sx={{ px: 2, py: 0.5, cursor: "pointer", bgcolor: index === active ? "noteTint.calculation" : undefined }}
            >
              <Typography component="span" sx={{ fontWeight: 600 }}>
                {item.title}
              </Typography>
              <Typography component="span" variant="body2" sx={{ ml: 1, color: "text.secondary" }}>
                {item.detail}
              </Typography>
            </Box>
          </Box>
        ))}
        {found.length === 0 && <Typography sx={{ px: 2, py: 1, color: "text.secondary" }}>{words.nothing}</Typography>}
      </Box>
    </>
  );
}
