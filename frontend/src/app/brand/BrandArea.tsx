// Brand: how the form looks and what it says by itself; beside it the form itself, as it will look.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Tab from "@mui/material/Tab";
import Tabs from "@mui/material/Tabs";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Brand } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { useBench } from "../workbench/bench";
import { BrandSample } from "./BrandSample";
import { Colours } from "./Colours";
import { PictureField } from "../../ui/PictureField";
import { Layout } from "./Layout";
import { Pictures } from "./Pictures";
import { SavedBrands } from "./SavedBrands";
import { Shapes } from "./Shapes";
import { SidePanel } from "../../ui/SideList";
import { Words } from "./Words";

const TABS = {
  look: "Colours and type",
  layout: "Layout",
  shapes: "Shapes and pictures",
  words: "Words",
  saved: "Saved brands",
} as const;
type TabName = keyof typeof TABS;

export function BrandArea() {
  const { form, act, mayEdit } = useBench();
  const [tab, setTab] = useState<TabName>("look");
  // The look of a saved brand that the form just left by a change.
  const [left, setLeft] = useState<Brand | null>(null);
  // A look of its own from here on: what other forms share is changed among the saved brands.
  const edit = (changes: Partial<Brand>) => {
    if (form.brand.saved) setLeft(form.brand);
    act({ do: "edit_form", changes: { brand: { ...form.brand, ...changes, saved: changes.saved ?? "" } } });
  };
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "460px minmax(0, 1fr)", height: "100%" }}>
      <SidePanel name="Settings of the brand">
        <Typography variant="h1" sx={{ px: 2, pt: 1.5 }}>
          Brand
        </Typography>
        <Tabs
          value={tab}
          onChange={(_event, next: TabName) => setTab(next)}
          aria-label="Parts of the brand"
          sx={{ px: 0.75, borderBottom: 1, borderColor: "divider" }}
        >
          {Object.entries(TABS).map(([name, title]) => (
            <Tab
              key={name}
              value={name}
              label={title}
              id={`brand-${name}`}
              aria-controls="brand-panel"
              sx={{ px: 0.75 }}
            />
          ))}
        </Tabs>
        <Box id="brand-panel" role="tabpanel" aria-labelledby={`brand-${tab}`} sx={{ flex: 1, overflow: "auto" }}>
          <Box
            component="fieldset"
            disabled={!mayEdit}
            sx={{ m: 0, p: 2, border: 0, display: "grid", gap: 2, minWidth: 0 }}
          >
            {left && !form.brand.saved && (
              <LeftBrand
                brand={left}
                onGoBack={() => act({ do: "edit_form", changes: { brand: left } })}
                onClose={() => setLeft(null)}
              />
            )}
            {form.brand.saved && tab !== "saved" && tab !== "words" && (
              <Typography variant="body2" color="text.secondary">
                This form uses a saved brand. A change here gives it a look of its own.
              </Typography>
            )}
            {tab === "layout" && (
              <>
                <Layout brand={form.brand} edit={edit} />
                <PictureField
                  label="Its picture: behind the title, beside the form or behind it"
                  value={form.brand.header_picture}
                  onChange={(header_picture) => edit({ header_picture })}
                />
              </>
            )}
            {tab === "look" && <Colours brand={form.brand} edit={edit} />}
            {tab === "shapes" && (
              <>
                <Shapes brand={form.brand} edit={edit} />
                <Pictures brand={form.brand} edit={edit} />
              </>
            )}
            {tab === "words" && <Words />}
            {tab === "saved" && <SavedBrands />}
          </Box>
        </Box>
      </SidePanel>
      <BrandSample />
    </Box>
  );
}

interface LeftProps {
  brand: Brand;
  onGoBack: () => void;
  onClose: () => void;
}

/** Says that a change took the form off its saved brand, which no longer changes it. */
function LeftBrand({ brand, onGoBack, onClose }: LeftProps) {
  const name = useQuery(queries.brands()).data?.brands.find(({ id }) => id === brand.saved)?.name;
  return (
    <Alert
      severity="warning"
      role="status"
      action={
        <>
          <Button color="inherit" size="small" onClick={onGoBack}>
            Go back to it
          </Button>
          <Button color="inherit" size="small" onClick={onClose}>
            Keep
          </Button>
        </>
      }
    >
      With this change the form left {name ? `the saved brand ${name}` : "its saved brand"}: what is changed there does
      not change this form any more.
    </Alert>
  );
}

export interface BrandProps {
  brand: Brand;
  edit: (changes: Partial<Brand>) => void;
}
