import createCache from "@emotion/cache";
import { CacheProvider } from "@emotion/react";
import CssBaseline from "@mui/material/CssBaseline";
import { ThemeProvider } from "@mui/material/styles";
import { QueryCache, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import "../form/fonts.css";
import "../form/form.css";
import "../form/fields.css";
import "../form/rows.css";
import "../form/pages.css";
import "../form/brand.css";
import "../form/layouts.css";
import "../theme/fonts";
import { ApiError } from "../api/client";
import { queries } from "../api/queries";
import { theme } from "../theme/theme";
import { App } from "./App";
import { Failed } from "./Failed";
import { styleNonce } from "./style_nonce";

const cache = createCache({ key: "cx", nonce: styleNonce() });
const queryClient: QueryClient = new QueryClient({
  // A session that has ended shows the sign-in; a draft that is not saved yet stays in the workbench and says so.
  queryCache: new QueryCache({
    onError: (error) => {
      if (error instanceof ApiError && error.code === "not_signed_in")
        queryClient.setQueryData(queries.session().queryKey, null);
    },
  }),
  defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false } },
});

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <CacheProvider value={cache}>
      <ThemeProvider theme={theme} defaultMode="system">
        <CssBaseline />
        <QueryClientProvider client={queryClient}>
          <Failed>
            <BrowserRouter>
              <App />
            </BrowserRouter>
          </Failed>
        </QueryClientProvider>
      </ThemeProvider>
    </CacheProvider>
  </StrictMode>,
);
