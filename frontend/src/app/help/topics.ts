// What help says: a line for each area, and answers to what people ask, found by Ctrl+K. Data only.

export interface AreaHelp {
  /** What the area is for, in one line. */
  line: string;
  /** A form of the demo that shows it, by its name. */
  example: string;
}

export const AREA_HELP: Readonly<Record<string, AreaHelp>> = {
  compose: {
    line: "Put questions on pages. What a block does stands beside it, in the margin; settings of what is selected are on the right.",
    example: "Plan a visit",
  },
  slots: {
    line: "Appointments with places: series of days and times, painted into the week, copied from day to day.",
    example: "Dome night booking",
  },
  rules: {
    line: "Every rule of the form in one map: what shows, what must be answered, which page comes next, and why with the answers tried.",
    example: "Plan a visit",
  },
  figures: {
    line: "Values that are worked out: totals, bands of prices, scores with right answers, profiles. Each has a live value.",
    example: "Travelling dome quote",
  },
  brand: {
    line: "How the form looks and speaks: colours, typeface, pictures, and every word it says by itself.",
    example: "Plan a visit",
  },
  languages: {
    line: "In which languages it can be filled in: every text with its translation, as files for translators too, and what is missing.",
    example: "Plan a visit",
  },
  payment: {
    line: "What visitors pay once they have handed in, once or by a plan, through which account, and what was paid and given back.",
    example: "Patron programme",
  },
  "follow-ups": {
    line: "What is done once a response is there: mail to the team and the visitor, and other systems told. Each exactly once.",
    example: "Plan a visit",
  },
  trials: {
    line: "Answers with what must come out of them. They run before every publishing, so that an edit breaks nothing unseen.",
    example: "Travelling dome quote",
  },
  publish: {
    line: "Put an unchangeable edition online, by link or on a website. Later edits wait here until you publish again.",
    example: "Plan a visit",
  },
  responses: {
    line: "What came back: each response with its figures, why they are so, and files for spreadsheets.",
    example: "Plan a visit",
  },
  history: {
    line: "Who changed what, and how the form was before: any state can be looked at and brought back.",
    example: "Plan a visit",
  },
  preview: {
    line: "The form as visitors will get it. Click anything in it to read why it is as it is.",
    example: "Northern sky quiz",
  },
};

export interface Topic {
  id: string;
  question: string;
  /** What to do, step by step. */
  steps: readonly string[];
  /** Where it is done. */
  area: string;
  /** Other words for it, for the search. */
  also?: string;
}

export const TOPICS: readonly Topic[] = [
  {
    id: "show_when",
    question: "How do I show a field only sometimes?",
    steps: [
      "Select the field and click “always shown; add a rule” in the margin.",
      "Pick a field, what is said of it, and a value. Several rows hold all together or any of them.",
      "A group or a page takes the same rule for all that stands in it.",
    ],
    area: "compose",
    also: "hide condition conditional logic visible if",
  },
  {
    id: "require",
    question: "How do I make a field required?",
    steps: [
      "Select it, and turn on “Must be answered” in Behaviour.",
      "“Must be answered when” below it takes a condition, so that it is required for some visitors only.",
    ],
    area: "compose",
    also: "mandatory must star obligatory",
  },
  {
    id: "next_page",
    question: "How do I skip a page or end early?",
    steps: [
      "Select the page and choose “Add a rule for the next page”.",
      "Say when, and to which page or to the end. Of several rules the first that holds counts.",
    ],
    area: "compose",
    also: "jump branch go to next page rule",
  },
  {
    id: "total",
    question: "How do I work out a total or a price?",
    steps: [
      "Give options a number in “counts as”: a choice then stands for it in formulas.",
      "Add a Calculated field, or a formula in Figures, such as adults * 9.50 + ticket. Type the name of a field to be offered it.",
      "Prices by thresholds are bands; a discount is a formula over them.",
    ],
    area: "figures",
    also: "calculate calculation sum formula cost money tiers",
  },
  {
    id: "quiz",
    question: "How do I make a quiz with right answers?",
    steps: [
      "Add a score in Figures, add the questions, and tick what is right, or give points to each answer.",
      "With nothing selected in Compose, “Feedback in a quiz” tells visitors what was right, when a page is left or at once.",
      "“Confirmations by a result …” in the outline makes an ending for each range of points.",
    ],
    area: "figures",
    also: "score scoring points test exam feedback correct",
  },
  {
    id: "profile",
    question: "How do I make a “which one are you” form?",
    steps: [
      "Add a profile in Figures: name the results, and give each answer points for them.",
      "“Confirmations by a result …” makes one ending for each; a chart shows all shares.",
    ],
    area: "figures",
    also: "personality type outcome profile result",
  },
  {
    id: "confirmation",
    question: "How do I say different things after Send?",
    steps: [
      "Add a confirmation in the outline of Compose and say when it follows. The first that holds counts; the last should have no rule.",
      "Paragraphs of it may have rules of their own, and show values, charts and pictures.",
    ],
    area: "compose",
    also: "thank you page message redirect ending",
  },
  {
    id: "mail",
    question: "How do I send a mail after Send?",
    steps: [
      "Add an e-mail in Follow-ups, and say to whom: an address, or an e-mail field of the form.",
      "Write it with { for values, add charts or all answers. “Send it to me” shows it as it will come.",
    ],
    area: "follow-ups",
    also: "email notification notify autoresponder confirmation mail webhook",
  },
  {
    id: "insert",
    question: "How do I show an answer in a text?",
    steps: [
      "Type { where the value shall stand, in any label, help, text or message, and choose from the list.",
      "A figure must be shown to visitors for that: a switch in Figures.",
    ],
    area: "compose",
    also: "merge insert value placeholder variable name pipe",
  },
  {
    id: "check",
    question: "How do I check what is entered?",
    steps: [
      "Limits of a field, such as least and most, are in Checks.",
      "“Add a check” takes a condition over any fields, and the words that visitors read where it does not hold.",
    ],
    area: "compose",
    also: "validate validation error pattern minimum maximum",
  },
  {
    id: "rows",
    question: "How do I let visitors add rows?",
    steps: [
      "Add a Repeat, and put fields into its row kind. Several kinds may be mixed in one list.",
      "Formulas add a column up: SUM(lines.amount).",
    ],
    area: "compose",
    also: "repeat list table line items several entries",
  },
  {
    id: "options",
    question: "How do I offer options by another answer?",
    steps: [
      "Give each option what it belongs to, in its table.",
      "Write under “offers an option when”: option.belongs_to = site. A choice that no longer fits is taken back, visibly.",
    ],
    area: "compose",
    also: "dependent dropdown cascade filter list",
  },
  {
    id: "records",
    question: "How do I offer what stands in a table?",
    steps: [
      "Tables: make one, or take it from a file. In the form add a Record of a table, and choose which; visitors look through or search.",
      "Write under “offered when”: AND(record.site = site, record.free). It follows what was answered before.",
      "instrument.day_rate is a value of what was chosen, for formulas, insertions and conditions. The response keeps what was seen.",
    ],
    area: "compose",
    also: "lookup database records catalogue dependent list cascade search reference autocomplete",
  },
  {
    id: "keep-records",
    question: "How do responses get into a table?",
    steps: [
      "Follow-ups: add a Record, choose the table, and say which answer goes into which column. “A new table of this form’s fields” makes one.",
      "“Found by what is the same in” columns changes a record that is there instead of making one; a repeat keeps a record for each row.",
      "The other way round: “Make a form that fills it” is in a table’s menu.",
    ],
    area: "follow-ups",
    also: "save store database record table insert update",
  },
  {
    id: "places",
    question: "How do I take bookings for what has so many places?",
    steps: [
      "Give the table a column of numbers: seats, pieces. In the record choice say “There are so many of each”, and how many each response takes.",
      "All forms of the table take of the same places; what is gone is not offered, and what a removed response had is free again.",
    ],
    area: "compose",
    also: "capacity seats limit stock inventory sold out availability quota",
  },
  {
    id: "published-records",
    question: "How do I show records on our website?",
    steps: [
      "In a table’s menu choose “Let anybody read records”, its address, and the columns that anybody reads.",
      "Publish records one by one or all that are marked; new ones wait unless you let them go at once.",
      "Copy the line for a page of your website, or give out the news feed (Atom) or the JSON.",
    ],
    area: "publish",
    also: "public list feed rss atom json content moderation gallery directory",
  },
  {
    id: "people",
    question: "How do I let colleagues in, and out?",
    steps: [
      "Under your initials, above on the right: People of the team. An owner invites an e-mail in a role; the mail has a link that works once.",
      "“Take out” says first which forms write to somebody and what is in their hands, and asks who takes it over.",
    ],
    area: "compose",
    also: "invite user team member colleague role permission access remove leave",
  },
  {
    id: "lists",
    question: "How do several forms share the same options?",
    steps: [
      "Tables, Lists: make one, a line for each option. In a choice’s answers say “Options of” it.",
      "Changed there, the drafts of all forms that have it follow; each is published when you are ready.",
    ],
    area: "compose",
    also: "shared options countries choice list reuse predefined",
  },
  {
    id: "default",
    question: "How do I fill a field in beforehand?",
    steps: [
      "Give it a default: a text in quotation marks, TODAY() + 7, link.code for what comes with the address, or a formula.",
      "“Follow the default until it is changed” works it out again with every answer.",
    ],
    area: "compose",
    also: "prefill default value link read only lock",
  },
  {
    id: "try",
    question: "How do I try the form before it is online?",
    steps: [
      "Preview is the form itself; “Why?” tells how anything came about.",
      "Keep answers as a trial with what must come out: it is run before every publishing.",
      "“Add with sample answers” finds answers for conditions that no trial has tried yet.",
      "A trial that fails says which saved state broke it, and which formula of that.",
    ],
    area: "preview",
    also: "test preview debug trial why",
  },
  {
    id: "publish",
    question: "How do I put the form on a website?",
    steps: [
      "Publish makes an edition that never changes. What you edit later waits until you publish again.",
      "Give out the link, or copy the two lines into the website’s page and list the website.",
    ],
    area: "publish",
    also: "embed share link online iframe live publish",
  },
  {
    id: "export",
    question: "How do I get responses into a spreadsheet?",
    steps: [
      "Responses, Export gives what is filtered as CSV, XLSX with typed cells and a sheet for each repeat, JSON or JSON Lines.",
    ],
    area: "responses",
    also: "csv excel export download table data",
  },
  {
    id: "look",
    question: "How do I change colours and words?",
    steps: [
      "Brand has colours, typeface, pictures and shapes, each seen at once on a sample.",
      "Words has every message of the form: buttons, errors, progress.",
    ],
    area: "brand",
    also: "theme style logo font translate wording language",
  },
  {
    id: "languages",
    question: "How can one form be filled in in several languages?",
    steps: [
      "Languages: add one, and write what each text reads in it; or send the XLIFF or CSV to a translator and take it from the file.",
      "The proof names what is missing, what has changed since, and values that were lost.",
      "Visitors switch above the title; a link begins in one with ?codexa-language=de. Responses are one set.",
    ],
    area: "languages",
    also: "translate translation multilingual bilingual localise locale",
  },
  {
    id: "together",
    question: "How do several people work on one form?",
    steps: [
      "All at once: each change comes in by itself, and initials in the outline show where somebody is.",
      "Where two changed the same, both values are shown, and you choose. What of yours does not stay is a state in History.",
      "What was told stands under Notices at the bottom.",
    ],
    area: "compose",
    also: "colleague share collaborate conflict merge collision presence",
  },
  {
    id: "many-forms",
    question: "How do I find a form, or a field, among many?",
    steps: [
      "Ctrl+K, from anywhere: forms by name, and fields in all forms by label, number or key.",
      "On the desk: words, whose, labels, any column to sort by. Keep a filter under a name. Tick several to label, give or delete them.",
      "What is deleted lies in the bin for thirty days.",
    ],
    area: "compose",
    also: "search desk label folder bin deleted restore owner bulk",
  },
  {
    id: "another-type",
    question: "How do I change the type of a field?",
    steps: [
      "Select it, and press its type at the top of the inspector, such as “short text ▾”. What it would lose is said there.",
      "Its key, its rules and what came in stay.",
    ],
    area: "compose",
    also: "convert dropdown single several choice number money retype",
  },
  {
    id: "replace",
    question: "How do I replace words everywhere in a form?",
    steps: [
      "Type them into “Find a block” above the outline, and press “Replace …”: labels, help, options, messages and mails.",
      "A key is changed in the settings of its field; every formula follows.",
    ],
    area: "compose",
    also: "search find rename text bulk",
  },
  {
    id: "undo",
    question: "How do I get an earlier state back?",
    steps: [
      "Ctrl+Z undoes your own steps, after a reload too; point at ↶ to see what it would do. What somebody else changed since stays.",
      "History keeps every state, with a number: look at one, give it a name, see what differs, read it as text, bring it back.",
    ],
    area: "history",
    also: "restore version revert undo backup",
  },
  {
    id: "start",
    question: "How do I start from a list of questions?",
    steps: [
      "On the desk choose “From an outline”, and paste the lines: one question each, a star for required, options after a colon.",
      "Each line says what it became before anything is made. Pasting into the sheet does the same.",
    ],
    area: "compose",
    also: "import paste outline letter word document",
  },
];

const IDLE_WORDS = new Set(
  "how do does can could i we to a an the is are my our in on of for it with what where".split(" "),
);

/** Whether a topic answers what was typed: every word that says something stands in it. */
export function answers({ question, steps, also = "" }: Topic, search: string): boolean {
  const words = search
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word && !IDLE_WORDS.has(word));
  const said = `help ${question} ${also} ${steps.join(" ")}`.toLowerCase();
  return (
    words.length > 0 && words.every((word) => said.includes(word.length > 4 ? word.replace(/(ing|ed|s)$/, "") : word))
  );
}
