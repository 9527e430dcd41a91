// The form around public components that stand in the workbench: its brand, language and words.
import Box, { type BoxProps } from "@mui/material/Box";
import { useMemo } from "react";
import usual from "../../api/generated/usual_words.json";
import { NO_TOOLS, ToolsContext } from "../../fields/input";
import { brandClasses, brandStyle, layoutClasses } from "../../form/brand";
import { useSpokenWords } from "../../text/useSpokenWords";
import { useUsualMessages } from "../brand/words_of";
import { useBench } from "../workbench/bench";

interface Props extends BoxProps {
  /** Whether it is drawn as a form of its own, on its paper and with its type; else only its brand is known in it. */
  drawn?: boolean;
  /** Whether it stands as its layout says, too. */
  layout?: boolean;
}

export function StillForm({ drawn = false, layout = false, children, ...box }: Props) {
  const { form } = useBench();
  const { brand, locale, currency, wording } = form;
  const style = useMemo(() => brandStyle(brand), [brand]);
  const tools = useMemo(() => ({ ...NO_TOOLS, locale, currency }), [locale, currency]);
  const words = JSON.stringify({ ...usual, ...useUsualMessages(locale), ...wording.messages });
  useSpokenWords(words);
  return (
    <ToolsContext value={tools}>
      {/* Another wording is another form: its words are not the blocks' own. */}
      <Box
        key={words}
        style={style}
        {...(drawn
          ? { className: [brandClasses(brand), layout && layoutClasses(brand)].filter(Boolean).join(" ") }
          : {})}
        {...box}
      >
        {children}
      </Box>
    </ToolsContext>
  );
}
