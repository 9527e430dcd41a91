"""What a form says to visitors by itself: every message, its usual words, and what an author wrote instead."""

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cache
from typing import Annotated

from pydantic import AfterValidator, StringConstraints
from pydantic import Field as Setting

from codexa.core.definition.parts import Part, PlainLabel, PlainWords, VisitorText
from codexa.core.languages import forms_by_category, language_of, translated


@dataclass(frozen=True, slots=True)
class Message:
    """A message: where it is met (`when`), and its usual words, with what `{name}` in it may stand for."""

    name: str
    group: str
    when: str
    usual: str

    @property
    def in_browser(self) -> bool:
        """Whether the form's page says it by itself; what the server alone says is not sent to it."""
        return self.group != INSTEAD and self.name not in _BY_SERVER

    @property
    def values(self) -> frozenset[str]:
        """The names that stand for values in it."""
        return frozenset(_VALUE.findall(self.usual))


_VALUE = re.compile(r"\{(\w+)\}")

_ON_THE_WAY = "On the way"
_CHAT = "In a conversation"
_CHOICES = "Choices"
_ROWS = "Rows"
_FILES = "Files and signature"
_PARTS = "Names and addresses"
_PROGRESS = "Progress"
_FEEDBACK = "Feedback in a quiz"
_ORDER = "Orders"
_PAYMENT = "Payment"
_LATER = "Going on later"
_WHO = "Who fills in"
_AFTER = "After sending"
_PARTS = "Parts that others fill in"
_BOOKING = "A booking"
_INSTEAD = "Instead of the form"
_WRONG = "What is wrong"

INSTEAD = _INSTEAD  # what is said where there is no form, by the server alone

MESSAGES: tuple[Message, ...] = (
    Message("someWrong", _ON_THE_WAY, "Above the list of what is wrong", "Some answers need another look."),
    Message("sending", _ON_THE_WAY, "While the answers are sent", "Sending …"),
    Message("waiting", _ON_THE_WAY, "While the next page is worked out", "One moment …"),
    Message("restored", _ON_THE_WAY, "When a visitor comes back", "We kept what you had filled in on this device."),
    Message("changedSince", _ON_THE_WAY, "The same, where the form was changed", "The form has changed since:"),
    Message("newPrice", _ON_THE_WAY, "Another price than before", "{label}: now {price}, before {before}."),
    Message("newCosts", _ON_THE_WAY, "Other costs than before", "Shipping, tax or discounts are other ones now."),
    Message("newQuestion", _ON_THE_WAY, "A question that is new", "New: {label}"),
    Message("goneQuestion", _ON_THE_WAY, "A question that is gone", "Not asked any more: {label}"),
    Message("startAgain", _ON_THE_WAY, "Button that clears kept answers", "Start again"),
    Message(
        "awaySending",
        _ON_THE_WAY,
        "No connection while sending",
        "We can't reach the server just now. Your answers are kept here, and we send them as soon as it is back.",
    ),
    Message(
        "awayFilling",
        _ON_THE_WAY,
        "No connection while filling in",
        "We can't reach the server just now. What you typed stays here; we try again by ourselves.",
    ),
    Message(
        "slow", _ON_THE_WAY, "When an answer takes long", "This takes longer than usual. What you typed stays here."
    ),
    Message(
        "lost",
        _ON_THE_WAY,
        "After many tries without a connection",
        "We still can't reach the server. What you typed stays on this device.",
    ),
    Message(
        "lostSending",
        _ON_THE_WAY,
        "When sending did not get through",
        "Your answers did not get through. They are kept on this device: send them again when the connection is back.",
    ),
    Message(
        "refusedOnTheWay",
        _ON_THE_WAY,
        "When something before the server refuses",
        "Something on the way to the server refused this ({status}). Try again later, or from another network.",
    ),
    Message(
        "elsewhere",
        _ON_THE_WAY,
        "When the form is open in another window too",
        "You have this form open in another window too. Each window keeps answers of its own.",
    ),
    Message("pieceMissing", _ON_THE_WAY, "When a part of the page did not come", "This part has not come through."),
    Message(
        "notDrawn",
        _ON_THE_WAY,
        "When the form can't be shown",
        "This form can't be shown just now. What you typed is kept on this device; load the page again.",
    ),
    Message("reload", _ON_THE_WAY, "Button that loads the page again", "Load again"),
    Message("loading", _ON_THE_WAY, "Before the form can be filled in", "The form is being loaded …"),
    Message(
        "unsettled",
        _ON_THE_WAY,
        "Below a total while an answer that it is made of is refused",
        "Not settled yet: an answer that this is made of needs another look.",
    ),
    Message("openDays", _CHOICES, "Button beside a date that opens the calendar", "Choose a day"),
    Message("openTimes", _CHOICES, "Button beside a time that opens a list of times", "Choose a time"),
    Message("monthBefore", _CHOICES, "In the calendar", "Month before"),
    Message("monthAfter", _CHOICES, "In the calendar", "Month after"),
    Message("languages", _ON_THE_WAY, "What names the choice of languages, for who can't see it", "Languages"),
    Message("fromLink", _ON_THE_WAY, "Below what a link has filled in and visitors can't change", "From your link"),
    Message("changeAnswers", _ON_THE_WAY, "In all answers, button that leads back to a page", "Change"),
    Message("lookOver", _ON_THE_WAY, "One question at a time: above all answers, before sending", "Your answers"),
    Message("earlier", _ON_THE_WAY, "One question at a time: button that shows earlier answers", "{count} more before"),
    Message("say", _CHAT, "Button that gives an answer", "Say"),
    Message("sayHere", _CHAT, "In the box, where an answer can be chosen too", "Or write it here"),
    Message("goOn", _CHAT, "Button that goes on, where an answer is filled in", "Go on"),
    Message("leaveOut", _CHAT, "Button that leaves a question out", "Leave it out"),
    Message("leftOut", _CHAT, "In place of an answer that was left out", "Left out"),
    Message("chatEnd", _CHAT, "Before sending", "That is all. Is everything as you want it?"),
    Message("none", _CHOICES, "Button that takes a choice back", "Choose none"),
    Message(
        "dropped",
        _CHOICES,
        "When a choice is no longer offered",
        "Your earlier choice is no longer offered here. Choose again.",
    ),
    Message("answerFirst", _CHOICES, "In place of a list that hangs on other answers", "First answer: {labels}"),
    Message(
        "recordChanged",
        _WRONG,
        "When what was chosen has changed since it was shown",
        "This has changed since you chose it. Look at it once more, then send again.",
    ),
    Message("noSlot", _CHOICES, "Slots: all are taken, or none is offered now", "There is no free time."),
    Message("slotsLater", _CHOICES, "Slots: button that shows later days", "Later days"),
    Message("slotsEarlier", _CHOICES, "Slots: button that shows earlier days", "Earlier days"),
    Message("slotsFrom", _CHOICES, "Slots: box for a day to look at", "From this day"),
    Message(
        "slotElsewhere", _CHOICES, "Slots: the time by a visitor's own clock, where it differs", "{time} your time"
    ),
    Message("slotChosen", _CHOICES, "Slots: which was chosen", "Chosen: {time}"),
    Message("slotWait", _CHOICES, "Slots: beside a time that is full", "Full; you can wait for it"),
    Message("slotWaits", _CHOICES, "Slots: after a time for which somebody waits", "on the waiting list"),
    Message("choose", _CHOICES, "In an empty dropdown", "Choose …"),
    Message("typeToSearch", _CHOICES, "In a dropdown that is searched", "Type to search"),
    Message("noMatch", _CHOICES, "When a search finds nothing", "Nothing fits."),
    Message("notMoved", _CHOICES, "Beside a slider that was not touched", "Not chosen yet"),
    Message("rated", _CHOICES, "For screen readers: one step of a rating", "{value} of {count}"),
    Message("add", _ROWS, "Button that adds a row", "Add {label}"),
    Message("insertBefore", _ROWS, "Button that inserts a row", "Insert {label} before this row"),
    Message("moveUp", _ROWS, "Button that moves a row up", "Move up"),
    Message("moveDown", _ROWS, "Button that moves a row down", "Move down"),
    Message("removeRow", _ROWS, "Button that removes a row", "Remove {label}"),
    Message("putBack", _ROWS, "Button that brings a removed row back", "Put {label} back"),
    Message("rowAdded", _ROWS, "For screen readers, after adding", "{label} was added."),
    Message("rowMoved", _ROWS, "For screen readers, after moving", "{label} is now in place {place}."),
    Message("rowRemoved", _ROWS, "For screen readers, after removing", "{label} was removed."),
    Message("chooseFile", _FILES, "Button for one file", "Choose a file"),
    Message("chooseFiles", _FILES, "Button for several files", "Choose files"),
    Message("orDrop", _FILES, "Beside that button", "or drop them here"),
    Message("uploading", _FILES, "While a file is sent", "{share} %"),
    Message("uploaded", _FILES, "When a file has arrived", "Arrived"),
    Message("tryAgain", _FILES, "Button after a file failed", "Try again"),
    Message("remove", _FILES, "Button that removes a file", "Remove"),
    Message(
        "filesMissing",
        _FILES,
        "Going on while files are under way",
        "Wait until your files have arrived, or remove them.",
    ),
    Message(
        "filesTooMany",
        _FILES,
        "When more files were chosen than may be sent",
        "At most {most} can be sent; {count} more were not taken.",
    ),
    Message(
        "filesRefused",
        _FILES,
        "Going on after a file was refused",
        "A file could not be taken. Remove it, or choose another.",
    ),
    Message("draw", _FILES, "In the empty signature box", "Draw your signature here"),
    Message("clear", _FILES, "Button that clears a signature", "Clear"),
    Message("typeInstead", _FILES, "Button: type a signature", "Type your name instead"),
    Message("drawInstead", _FILES, "Button: draw a signature", "Draw instead"),
    Message("typedName", _FILES, "Label of a typed signature", "Your name as signature"),
    Message("first", _PARTS, "Part of a name", "First name"),
    Message("last", _PARTS, "Part of a name", "Last name"),
    Message("street", _PARTS, "Part of an address", "Street and number"),
    Message("extra", _PARTS, "Part of an address", "Floor, flat, company"),
    Message("postal_code", _PARTS, "Part of an address", "Postal code"),
    Message("town", _PARTS, "Part of an address", "Town"),
    Message("country", _PARTS, "Part of an address", "Country"),
    Message("progress", _PROGRESS, "For screen readers: what the bar is", "Progress"),
    Message("of", _PROGRESS, "Progress as a count", "Page {at} of {count}"),
    Message("percent", _PROGRESS, "Progress in percent", "{share} % done"),
    Message("stepOf", _PROGRESS, "The same, one question at a time", "{at} of {count}"),
    Message("oneLeft", _PROGRESS, "One question left", "1 question left"),
    Message("left", _PROGRESS, "Several questions left", "{count} questions left"),
    Message("done", _PROGRESS, "For screen readers: a page is done", "Done"),
    Message("checkAnswer", _FEEDBACK, "Button that tells whether an answer is right", "Check my answer"),
    Message("answerRight", _FEEDBACK, "Of a right answer", "That is right."),
    Message("answerPartly", _FEEDBACK, "Of an answer that is worth a part", "That is partly right."),
    Message("answerWrong", _FEEDBACK, "Of a wrong answer", "That is not right."),
    Message("rightAnswer", _FEEDBACK, "Where the right answer is told", "Right: {answer}"),
    Message("answersTold", _FEEDBACK, "Above the button, once a page was checked", "See what was right, then go on."),
    Message("each", _ORDER, "Beside a price for each piece", "{price} each"),
    Message("orderNothing", _ORDER, "While nothing is ordered", "Nothing yet."),
    Message("subtotal", _ORDER, "The lines together", "Subtotal"),
    Message("shipping", _ORDER, "What sending costs", "Shipping"),
    Message("total", _ORDER, "All of it", "Total"),
    Message("included", _ORDER, "A tax that is in the prices", "{tax} included"),
    Message("piecesLeft", _ORDER, "Beside a product that runs out", "{count} left"),
    Message("sold_out", _ORDER, "Nothing of a product is left", "Sold out."),
    Message("fewer", _ORDER, "For screen readers: button that orders one less", "One less of {label}"),
    Message("more", _ORDER, "For screen readers: button that orders one more", "One more of {label}"),
    Message("payTitle", _PAYMENT, "Above the payment", "To pay: {amount}"),
    Message("payWhere", _PAYMENT, "Below the boxes for the card", "Your card goes to the bank, not to us."),
    Message("payFrame", _PAYMENT, "For screen readers: the boxes for the card", "Card for the payment"),
    Message("payThere", _PAYMENT, "Link to the bank's own page, where it stands in no frame", "Pay at the bank"),
    Message("payWaiting", _PAYMENT, "While the bank is asked", "The bank is being asked …"),
    Message("payAway", _PAYMENT, "The bank can't be reached", "The bank can't be reached just now. We try again."),
    Message("payFailed", _PAYMENT, "The bank refused", "That did not work: {reason} Nothing was charged."),
    Message("planNow", _PAYMENT, "Of a plan: what is paid at once", "{amount} now"),
    Message("planLater", _PAYMENT, "Of a plan: nothing is paid at once", "nothing now"),
    Message("planOnce", _PAYMENT, "Of a plan: one payment follows", "then {amount} on {date}"),
    Message("planTimes", _PAYMENT, "Of a plan: so many follow", "then {amount} {each}, {times} times, next on {date}"),
    Message(
        "planOpen", _PAYMENT, "Of a plan without an end", "then {amount} {each} until it is stopped, next on {date}"
    ),
    Message("planDay", _PAYMENT, "Of a plan: how often", "each day"),
    Message("planDays", _PAYMENT, "Of a plan: how often", "every {every} days"),
    Message("planWeek", _PAYMENT, "Of a plan: how often", "each week"),
    Message("planWeeks", _PAYMENT, "Of a plan: how often", "every {every} weeks"),
    Message("planMonth", _PAYMENT, "Of a plan: how often", "each month"),
    Message("planMonths", _PAYMENT, "Of a plan: how often", "every {every} months"),
    Message("planYear", _PAYMENT, "Of a plan: how often", "each year"),
    Message("planYears", _PAYMENT, "Of a plan: how often", "every {every} years"),
    Message(
        "payCard", _PAYMENT, "Where nothing is paid yet, and a card is kept for later", "Card for what is paid later"
    ),
    Message("payPaid", _PAYMENT, "Once it is paid", "Paid: {amount}"),
    Message("payOver", _PAYMENT, "The time to pay is over", "The time to pay is over. Nothing was charged."),
    Message("payPractice", _PAYMENT, "Where payments are for practice", "For practice: no money moves."),
    Message("receipt", _PAYMENT, "In the PDF: above what was paid, before its number", "Receipt"),
    Message("receiptPaid", _PAYMENT, "In the PDF: what was paid", "Paid"),
    Message("receiptBack", _PAYMENT, "In the PDF: what was given back", "Given back"),
    Message("receiptPlan", _PAYMENT, "In the PDF: the plan", "Now and later"),
    Message("receiptBank", _PAYMENT, "In the PDF: the bank's number", "Number at the bank"),
    Message("payLeft", _PAYMENT, "When a visitor comes back", "You have handed in something that is not paid yet."),
    Message("payGoOn", _PAYMENT, "Link that leads to it", "Go on to pay"),
    Message("later", _LATER, "Button that keeps the answers so far, in Publish: Who and when", "Go on later"),
    Message("laterWaits", _LATER, "While they are kept", "Your answers are being kept …"),
    Message(
        "laterKept",
        _LATER,
        "Once they are kept",
        "Your answers are kept until {moment}. Whoever has this link can see them and go on, on any device.",
    ),
    Message("laterNumber", _LATER, "The same, where it has its number", "Its number is {number}."),
    Message(
        "laterChanged",
        _LATER,
        "After another answer",
        "You have changed something since. Keep it once more.",
    ),
    Message("laterTo", _LATER, "Label of the box for an address", "Send the link to (e-mail)"),
    Message("laterSend", _LATER, "Button that sends it", "Send the link"),
    Message("laterSent", _LATER, "Once it is on its way", "The link is on its way to {email}."),
    Message("laterMailed", _LATER, "After five mails", "This link was sent often enough. Copy it instead."),
    Message("laterMailTitle", _LATER, "Subject of the mail", "Your answers so far: {form}"),
    Message("laterMailText", _LATER, "Above the link in the mail", "Go on with your answers here, until {moment}:"),
    Message("laterAgain", _LATER, "When a visitor opens the link", "You kept these answers on {moment}."),
    Message(
        "laterElsewhere",
        _LATER,
        "When others were kept by the same link meanwhile",
        "Other answers were kept by your link meanwhile, on {moment}.",
    ),
    Message("laterMine", _LATER, "Button that keeps these all the same", "Keep these instead"),
    Message("laterHere", _LATER, "Button that shows what was entered on this device", "Show what I entered here"),
    Message("laterHandedIn", _LATER, "When they were handed in already", "These answers have been handed in already."),
    Message(
        "laterOff",
        _LATER,
        "When nothing is kept any more",
        "Nothing is kept here any more.",
    ),
    Message(
        "signIn",
        _WHO,
        "To a guest, where the form wants to know who fills it in",
        "This form is for members of {team}. Sign in to fill it in.",
    ),
    Message(
        "notForYou", _WHO, "To a member whom the form is not for", "You are signed in, and this form is for others."
    ),
    Message("onceEach", _WHO, "To a member who has responded, once each", "You have handed in this form already."),
    Message(
        "knownMember",
        _WHO,
        "To a guest with the address of a member, where the form makes accounts",
        "This address has an account. Sign in, and go on with what you have entered.",
    ),
    Message("signInEmail", _WHO, "Label of the address", "E-mail"),
    Message("signInPassword", _WHO, "Label of the password", "Password"),
    Message("signInNow", _WHO, "Button that signs in", "Sign in"),
    Message("signInMail", _WHO, "Button that has a mail sent instead", "Send me a code instead"),
    Message(
        "signInMailed",
        _WHO,
        "Once it is on its way",
        "If this address has an account, a mail is on its way. Type its code here, or follow its link.",
    ),
    Message("signInCode", _WHO, "Label of the code", "Code from the mail"),
    Message("signInWrong", _WHO, "When they don’t belong together", "E-mail and password don’t belong together."),
    Message("signInWrongCode", _WHO, "When it is another code", "This is not the code of the latest mail."),
    Message("signInWait", _WHO, "After too many tries", "Too many tries. Wait some minutes, or have a code sent anew."),
    Message("signedIn", _WHO, "Above the form", "Signed in as {name}"),
    Message("ownPage", _WHO, "Link to the member’s own page", "My answers"),
    Message("tooLong", _WRONG, "Below a text that is too long, while it is typed", "{count} too many"),
    Message("again", _AFTER, "Button that begins once more", "Send another"),
    Message("print", _AFTER, "Button that prints", "Print"),
    Message("keepPdf", _AFTER, "Link to the answers as PDF", "Keep as PDF"),
    Message("share", _AFTER, "Above the ways to hand the form on", "Tell others of this form"),
    Message("copyLink", _AFTER, "Button that copies the form's address, or a private link", "Copy the link"),
    Message("linkCopied", _AFTER, "Once it is copied", "Copied."),
    Message("mailLink", _AFTER, "Link that begins a mail with the form's address", "By e-mail"),
    Message("shareBy", _AFTER, "Button that opens the device's own ways to share", "Share …"),
    Message("notYet", _INSTEAD, "Before the form opens", "This form opens on {moment}."),
    Message("over", _INSTEAD, "After it has closed", "This form is closed. It took answers until {moment}."),
    Message("full", _INSTEAD, "Once it has as many responses as it takes", "This form has all the answers it takes."),
    Message("offline", _INSTEAD, "While it is taken off line", "This form can't be filled in just now."),
    Message(
        "siteNotAllowed",
        _INSTEAD,
        "On a website that may not show the form",
        "This form may not be shown on this website. It has a page of its own:",
    ),
    Message("openPage", _INSTEAD, "Link to the form's own page", "Open the form"),
    Message("closeWindow", _INSTEAD, "For screen readers: button that closes the form's window", "Close"),
    Message("askPassword", _INSTEAD, "Above the box for a password", "This form asks for a password."),
    Message("password", _INSTEAD, "Label of that box", "Password"),
    Message("wrongPassword", _INSTEAD, "When it is wrong", "This is not the password. Check it and try again."),
    Message("goIn", _INSTEAD, "Button that opens the form", "Open the form"),
    Message("linkBroken", _INSTEAD, "When a link was changed or cut", "This link is not whole. Ask for a new one."),
    Message("linkOver", _INSTEAD, "When a link's time is over", "The time of this link is over. Ask for a new one."),
    Message("linkUsed", _INSTEAD, "When a link was used", "This link has been used. Ask for a new one."),
    Message("bookingTitle", _BOOKING, "Above what was booked", "Your booking"),
    Message("bookingMove", _BOOKING, "Button that leads to other times", "Choose another time"),
    Message("bookingTake", _BOOKING, "Button that takes another time", "Take this time"),
    Message("bookingMoved", _BOOKING, "After another time was taken", "Your new time: {time}"),
    Message("bookingCancel", _BOOKING, "Button that cancels", "Cancel this booking"),
    Message("bookingSure", _BOOKING, "Before it is cancelled", "Cancel it for good? Somebody else may take the place."),
    Message("bookingOff", _BOOKING, "After it was cancelled", "This booking is cancelled."),
    Message("bookingBack", _BOOKING, "Link that leads back", "Back to the booking"),
    Message(
        "bookingLate",
        _BOOKING,
        "When it is too late to change it",
        "This can't be changed here any more. Please get in touch with us.",
    ),
    Message(
        "decisionWaits",
        _AFTER,
        "On one's own page, while a decision is waited for",
        "This is being looked at. We will write to you.",
    ),
    Message(
        "askedBack",
        _AFTER,
        "Above the form, when it was given back",
        "We have a question about this. Change what is needed, and send it once more.",
    ),
    Message("partTitle", _PARTS, "Above the form, for whoever fills in a part", "Yours to fill in: {part}"),
    Message("partHandOn", _PARTS, "Button that hands it on", "Hand on"),
    Message("partGoneOn", _PARTS, "After it was handed on", "Thank you. It is with {part} now."),
    Message("partEnded", _PARTS, "The same after the last part", "Thank you. Everything is filled in."),
    Message("partBack", _PARTS, "Button that sends it back", "Send it back"),
    Message("partBackTo", _PARTS, "Above the choice of whom it goes back to", "To whom"),
    Message("partFiller", _PARTS, "In that choice", "Who filled it in"),
    Message("partRemark", _PARTS, "Above the box for what is to be changed", "What is to be changed?"),
    Message("partSentBack", _PARTS, "After it was sent back", "It was sent back."),
    Message("linkNeeded", _INSTEAD, "Without a link of one's own", "This form opens with a link that was sent to you."),
    Message(
        "linkWrong",
        _INSTEAD,
        "When a link brings what the form does not take",
        "This link brings something that the form does not take: {label}. {reason}",
    ),
    Message("each_full", _WRONG, "Somebody has sent as many as one may", "We have an answer from you already."),
    Message("nothing_ordered", _WRONG, "Nothing was ordered", "Choose what you would like to order."),
    Message(
        "order_failed",
        _WRONG,
        "The order can't be worked out",
        "What this comes to can't be worked out. Nothing was sent; please tell whoever has this form.",
    ),
    Message("only_left", _WRONG, "More is ordered than is left", "There are only {count} left."),
    Message("too_few", _WRONG, "The same, where what is left is not shown", "There are not so many left."),
    Message("slot_gone", _WRONG, "A slot was taken meanwhile", "This time has just been taken. Choose another."),
    Message(
        "slot_lost", _WRONG, "A slot is not offered any more", "This time is not offered any more. Choose another."
    ),
    Message(
        "slot_each", _WRONG, "One person has as many slots as one may", "You have as many times here as one may have."
    ),
    Message("code_unknown", _WRONG, "A code is not known", "This code is not known."),
    Message("code_over", _WRONG, "A code does not count today", "This code does not count today."),
    Message("code_not_due", _WRONG, "A code is for other orders", "This code does not count for this order."),
    Message("code_used_up", _WRONG, "A code was used as often as it may be", "This code has been used up."),
    Message("not_a_number", _WRONG, "No number was typed", ""),
    Message("not_a_date", _WRONG, "No date was typed", ""),
    Message("not_a_time", _WRONG, "No time was typed", ""),
    Message("not_an_email", _WRONG, "No e-mail address was typed", ""),
    Message("not_a_phone", _WRONG, "No phone number was typed", ""),
    Message("not_an_address", _WRONG, "No web address was typed", ""),
    Message("part_missing", _WRONG, "A part of a name or address is missing", ""),
    Message("too_long", _WRONG, "The text is too long", ""),
)

# Said where the server has worked something out; visitors' browsers get it as a part of that.
_BY_SERVER = frozenset({
    "newPrice", "newCosts", "newQuestion", "goneQuestion", "lookOver", "answerRight", "answerPartly",
    "answerWrong", "rightAnswer", "piecesLeft", "planNow", "planLater", "planOnce", "planTimes", "planOpen", "planDay",
    "planDays", "planWeek", "planWeeks", "planMonth", "planMonths", "planYear", "planYears", "receipt", "receiptPaid",
    "receiptBack", "receiptPlan", "receiptBank", "laterMailed", "laterMailTitle", "laterMailText", "laterElsewhere",
    "laterHandedIn", "laterOff", "each_full", "nothing_ordered", "order_failed", "only_left", "too_few", "code_unknown",
    "code_over", "code_not_due", "code_used_up", "answerFirst", "recordChanged", "signIn", "notForYou", "onceEach",
    "knownMember", "noSlot", "slotWaits", "slot_gone", "slot_lost", "slot_each",
    "bookingTitle", "bookingMove", "bookingTake", "bookingMoved", "bookingCancel", "bookingSure", "bookingOff",
    "bookingBack", "bookingLate", "decisionWaits", "askedBack",
    "partTitle", "partHandOn", "partGoneOn", "partEnded", "partBack", "partBackTo", "partFiller",
    "partRemark", "partSentBack",
})  # fmt: skip

_BY_NAME = {message.name: message for message in MESSAGES}
# What is counted, with the name of the message for one.
COUNTED = {"left": "oneLeft"}


@cache
def _messages_in(locale: str) -> dict[str, str]:
    singular = {one: many for many, one in COUNTED.items()}
    plain = (each for each in MESSAGES if each.usual and each.name not in COUNTED and each.name not in singular)
    words = {each.name: translated(each.usual, locale, each.name) for each in plain}
    for many, one in COUNTED.items():
        forms = dict(forms_by_category(_BY_NAME[one].usual, locale, many))
        words |= {f"{many}#{category}": form for category, form in forms.items()}
        words[many] = forms.get("other", _BY_NAME[many].usual)
        words[one] = forms.get("one", words[many] if forms else _BY_NAME[one].usual)
    return words


def is_in_browser(name: str) -> bool:
    """Whether a message, or one of its plural forms ("left#few"), is said by the form's page itself."""
    return _BY_NAME[name.partition("#")[0]].in_browser


def _messages(given: Mapping[str, str]) -> Mapping[str, str]:
    for name in given:
        if name not in _BY_NAME:
            raise ValueError(f'there is no message "{name}"; remove it')
    return given


def unknown_values(given: Mapping[str, str]) -> Iterator[tuple[str, str]]:
    """Yield of an author's messages those with a value that means nothing there: the name, and what is wrong."""
    for name, words in given.items():
        message = _BY_NAME[name]
        unknown = set(_VALUE.findall(words)) - message.values
        if unknown:
            known = ", ".join(f"{{{each}}}" for each in sorted(message.values)) or "nothing"
            yield name, f"{{{min(unknown)}}} means nothing in the words for “{message.when}”; they know {known}."


# The words that every form has, beside its messages, and where they are met.
SHORT_WORDS = {
    "submit": "Button that sends",
    "next": "Button to go on",
    "back": "Button to go back",
    "required": "When a required answer is missing",
    "confirmation_title": "After sending: heading",
    "confirmation_text": "After sending: text",
}
ShortWords = Annotated[str, StringConstraints(min_length=1, max_length=60), VisitorText()]


def met_when(name: str) -> str:
    """Return where visitors meet the words of that name."""
    return SHORT_WORDS.get(name) or _BY_NAME[name].when


def usual_words(name: str, locale: str) -> str:
    """Return what a form of that language says by itself where a message is due."""
    return _messages_in(locale).get(name, _BY_NAME[name].usual)


class Wording(Part):
    """What the form itself says to visitors; `messages` are the author's words in place of the usual ones, by name."""

    submit: ShortWords = "Send"
    next: ShortWords = "Next"
    back: ShortWords = "Back"
    required: Annotated[str, StringConstraints(min_length=1, max_length=200), VisitorText()] = "Please answer this."
    confirmation_title: PlainLabel = "Thank you"
    confirmation_text: PlainWords = "Your answers have been received."
    messages: Annotated[
        dict[str, Annotated[str, StringConstraints(min_length=1, max_length=300)]],
        AfterValidator(_messages),
        VisitorText(),
    ] = Setting(default_factory=dict)

    def in_language(self, locale: str) -> "Wording":
        """Return the words of a locale's language, with the author's in place of those that are not as usual.

        Of what is counted every plural form is there, by its category ("left#few").
        """
        if language_of(locale) == "en":
            return self.model_copy(update={"messages": _messages_in("en") | self.messages})
        usual = Wording()
        kept = {name: getattr(self, name) for name in SHORT_WORDS if getattr(self, name) != getattr(usual, name)}
        words = {name: translated(getattr(usual, name), locale, name) for name in SHORT_WORDS}
        known = {
            name: each for name, each in _messages_in(locale).items() if name.partition("#")[0] not in self.messages
        }
        return self.model_copy(update={**words, **kept, "messages": known | self.messages})

    def say(self, name: str, locale: str = "en") -> str:
        """Return what visitors are told where that message is due: the author's words, else the usual ones."""
        return self.messages.get(name) or usual_words(name, locale)
