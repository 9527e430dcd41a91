"""What a member's own page says."""

from codexa.core.sentences import Sentence

WORDS = {
    "title": Sentence("Members of {team}"),
    "lead": Sentence("Sign in to find your answers again."),
    "answers": Sentence("Your answers"),
    "none": Sentence("You have handed in nothing yet."),
    "waits": Sentence("Waits for you"),
    "forms": Sentence("Forms for you"),
    "others": Sentence("Answers of others"),
    "see": Sentence("Look at it"),
    "go_on": Sentence("Go on"),
    "kept": Sentence("kept, not handed in"),
    "waiting": Sentence("waits for payment"),
    "complete": Sentence("handed in"),
    "account": Sentence("Your account"),
    "name": Sentence("Name"),
    "save_name": Sentence("Save the name"),
    "new_password": Sentence("New password, at least {least} characters"),
    "save_password": Sentence("Set the password"),
    "new_address": Sentence("Another e-mail address"),
    "save_address": Sentence("Have a mail sent to it"),
    "saved": Sentence("Saved."),
    "address_mailed": Sentence("A mail is on its way to {email}. Follow its link to confirm the address."),
    "sign_out": Sentence("Sign out"),
    "leave": Sentence("Leave"),
    "leave_lead": Sentence(
        "Your account and what is known of you here are forgotten for good. What you handed in stays with {team}, "
        "and no longer says that it is yours."
    ),
    "leave_sure": Sentence("Yes, forget my account"),
    "left": Sentence("Your account is forgotten."),
    "link_sign_in": Sentence("You follow a link to sign in."),
    "link_address": Sentence("You follow a link that confirms {email}."),
    "link_go": Sentence("Go on"),
    "link_over": Sentence("This link doesn't work any more: it was used, or its time is over. Have another one sent."),
    "back": Sentence("Back to your answers"),
}
