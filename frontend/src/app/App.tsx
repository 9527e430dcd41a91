// Which screen the address means, once it is known who is signed in.
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense } from "react";
import { Navigate, Route, Routes, useMatch, useParams } from "react-router";
import { queries } from "../api/queries";
import { Desk } from "./desk/Desk";
import { FindAnything } from "./desk/FindAnything";
import { useFocusKept } from "./focus_kept";
import { SignedInProvider } from "./signed_in";
import { NewAddress, NewPassword } from "./sign_in/ByLink";
import { Join } from "./sign_in/Join";
import { SignIn } from "./sign_in/SignIn";
import { Waiting } from "./Waiting";

const FromTemplate = lazy(() => import("./start/FromTemplate").then((module) => ({ default: module.FromTemplate })));
const FromOutline = lazy(() => import("./start/FromOutline").then((module) => ({ default: module.FromOutline })));
const Workbench = lazy(() => import("./workbench/Workbench").then((module) => ({ default: module.Workbench })));

const Account = lazy(() => import("./account/Account").then((module) => ({ default: module.Account })));
const AllPayments = lazy(() => import("./payment/AllPayments").then((module) => ({ default: module.AllPayments })));
const AboutPerson = lazy(() => import("./person/AboutPerson").then((module) => ({ default: module.AboutPerson })));
const Decisions = lazy(() => import("./decisions/Decisions").then((module) => ({ default: module.Decisions })));
const Programs = lazy(() => import("./programs/Programs").then((module) => ({ default: module.Programs })));
const Tables = lazy(() => import("./tables/Tables").then((module) => ({ default: module.Tables })));
const Team = lazy(() => import("./team/Team").then((module) => ({ default: module.Team })));
const Calendars = lazy(() => import("./team/Calendars").then((module) => ({ default: module.Calendars })));
const Groups = lazy(() => import("./team/Groups").then((module) => ({ default: module.Groups })));
const Members = lazy(() => import("./team/Members").then((module) => ({ default: module.Members })));
const Audit = lazy(() => import("./team/Audit").then((module) => ({ default: module.Audit })));
const SharedList = lazy(() => import("./tables/SharedList").then((module) => ({ default: module.SharedList })));
const Worksheet = lazy(() => import("./tables/Worksheet").then((module) => ({ default: module.Worksheet })));
const Workings = lazy(() => import("./workings/Workings").then((module) => ({ default: module.Workings })));

// Links in mails work whoever is signed in, or nobody.
const BY_LINK = [
  <Route key="password" path="/password" element={<NewPassword />} />,
  <Route key="address" path="/address" element={<NewAddress />} />,
  <Route key="join" path="/join" element={<Join />} />,
];

export function App() {
  const session = useQuery(queries.session());
  useFormAhead();
  useFocusKept();
  if (session.isPending) return <Waiting />;
  if (!session.data) {
    return (
      <Routes>
        <Route path="/sign-in" element={<SignIn />} />
        {BY_LINK}
        <Route path="*" element={<Navigate to="/sign-in" replace />} />
      </Routes>
    );
  }
  return (
    <SignedInProvider value={session.data}>
      <FindAnything />
      <Suspense fallback={<Waiting />}>
        <Routes>
          <Route path="/" element={<Desk />} />
          {BY_LINK}
          <Route path="/account" element={<Account />} />
          <Route path="/team" element={<Team />} />
          <Route path="/team/groups" element={<Groups />} />
          <Route path="/team/calendars" element={<Calendars />} />
          <Route path="/team/members" element={<Members />} />
          <Route path="/team/audit" element={<Audit />} />
          <Route path="/jobs" element={<Workings />} />
          <Route path="/person" element={<AboutPerson />} />
          <Route path="/programs" element={<Programs />} />
          <Route path="/payments" element={<AllPayments />} />
          <Route path="/decisions" element={<Decisions />} />
          <Route path="/decisions/:decision" element={<Decisions />} />
          <Route path="/tables" element={<Tables />} />
          <Route path="/tables/lists/:list" element={<OneList />} />
          <Route path="/tables/:table" element={<OneWorksheet />} />
          <Route path="/start/template" element={<FromTemplate />} />
          <Route path="/start/outline" element={<FromOutline />} />
          <Route path="/forms/:form/:area" element={<OneWorkbench />} />
          <Route path="/forms/:form/responses/:response" element={<OneWorkbench />} />
          <Route path="*" element={<Navigate to="/" replace />} />
        </Routes>
      </Suspense>
    </SignedInProvider>
  );
}

/** A form is asked for at once, not after the session and the workbench itself have come. */
function useFormAhead() {
  const form = useMatch("/forms/:form/*")?.params.form;
  useQuery({ ...queries.form(form ?? ""), enabled: form !== undefined, notifyOnChangeProps: [] });
}

function OneList() {
  const { list } = useParams();
  return <SharedList key={list} listId={list!} />;
}

function OneWorksheet() {
  const { table = "" } = useParams();
  return <Worksheet key={table} tableId={table} />;
}

/** A workbench holds one form's draft; another form is another workbench. */
function OneWorkbench() {
  const { form = "", area = "responses" } = useParams();
  return <Workbench key={form} formId={form} area={area} />;
}
