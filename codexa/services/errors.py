"""What a use case refuses; the message is for people and says what to do next."""

from typing import ClassVar


class ServiceError(Exception):
    """Something was refused."""

    code: ClassVar[str] = "refused"

    def __init__(self, message: str = "") -> None:
        self.message = message or (type(self).__doc__ or "").strip()
        super().__init__(self.message)


class NotFoundError(ServiceError):
    """There is nothing at this address for your team; it may have been deleted. Go back to the desk."""

    code = "not_found"


class PlaceUnknownError(ServiceError):
    """This place in the responses is not known any more. Begin with the first page."""

    code = "place_unknown"


class TooManyError(ServiceError):
    """These are too many at once. Filter them."""

    code = "too_many"


class BehindError(ServiceError):
    """Some responses are still being read in, and would be missing in the file. Try again in a minute."""

    code = "behind"


class ViewRefusedError(ServiceError):
    """This can't be kept so."""

    code = "view_refused"


class MovedMeanwhileError(ServiceError):
    """Somebody else has moved this response meanwhile."""

    code = "moved_meanwhile"


class KeyRefusedError(ServiceError):
    """This key opens nothing. Send one that your team has made, as Authorization: Bearer <key>."""

    code = "key_refused"


class RecordRefusedError(ServiceError):
    """This record can't be kept so."""

    code = "record_refused"


class CorrectionRefusedError(ServiceError):
    """This response can't be corrected now."""

    code = "correction_refused"


class CorrectedMeanwhileError(ServiceError):
    """Somebody else has corrected this response meanwhile. Nothing was changed: look at it again."""

    code = "corrected_meanwhile"


class BookingRefusedError(ServiceError):
    """This booking can't be changed so."""

    code = "booking_refused"


class DecidedMeanwhileError(ServiceError):
    """Somebody else has decided this meanwhile. Nothing was changed."""

    code = "decided_meanwhile"


class PartMovedError(ServiceError):
    """Somebody else has handed this response on meanwhile. Nothing was changed."""

    code = "part_moved"


class MovedError(Exception):
    """The form has another address by now; `team_slug` and `slug` are the last parts of it."""

    def __init__(self, team_slug: str, slug: str) -> None:
        self.team_slug, self.slug = team_slug, slug
        super().__init__(slug)


class NotAllowedError(ServiceError):
    """Your role in the team does not allow this. Ask an owner of the team."""

    code = "not_allowed"


class NoTeamError(ServiceError):
    """You are in no team any more. Ask an owner of the team to invite you."""

    code = "no_team"


class LastOwnerError(ServiceError):
    """A team needs an owner. Make somebody else an owner first."""

    code = "last_owner"


class InvitationUsedError(ServiceError):
    """This invitation doesn't work any more: it was used, taken back, or is over. Ask for another one."""

    code = "invitation_used"


class WrongPersonError(ServiceError):
    """This invitation is for somebody else. Sign out to accept it."""

    code = "wrong_person"


class WrongSignInError(ServiceError):
    """E-mail and password don't belong together. Check both and try again."""

    code = "wrong_sign_in"


class TooManyAttemptsError(ServiceError):
    """Too many wrong passwords. Wait 15 minutes, then try again."""

    code = "too_many_attempts"


class ClashError(ServiceError):
    """Somebody else has saved this form since you opened it."""

    code = "clash"


class NotProvenError(ServiceError):
    """The proof has errors. Correct them in Compose, then publish."""

    code = "not_proven"


class TrialsFailError(ServiceError):
    """Trials of this form fail. Look at them in Trials, or publish all the same."""

    code = "trials_fail"


class NameTakenError(ServiceError):
    """Your team has one of that name already. Choose another name."""

    code = "name_taken"


class FileRefusedError(ServiceError):
    """This file can't be taken. Send another one."""

    code = "file_refused"


class KeyReusedError(ServiceError):
    """This Idempotency-Key was used with other answers. Send these answers with a new key."""

    code = "key_reused"


class ClosedError(ServiceError):
    """This form takes no answers any more."""

    code = "closed"


class KeptElsewhereError(ServiceError):
    """Other answers were kept by this link meanwhile. Open the link again, or keep these in their place."""

    code = "kept_elsewhere"


class KeepingRefusedError(ServiceError):
    """These answers can't be kept any more. What was entered stays on this device."""

    code = "keeping_refused"


class TooBusyError(ServiceError):
    """Codexa has too much to do just now. Nothing you typed is lost; wait a moment, then try again."""

    code = "busy"


class PasswordRefusedError(ServiceError):
    """This password is too short. Take a longer one."""

    code = "password_refused"


class WrongPasswordError(ServiceError):
    """This is not your password. Type the one that you sign in with."""

    code = "wrong_password"


class AddressRefusedError(ServiceError):
    """This address can't receive mail. Type one such as name@example.org."""

    code = "address_refused"


class SignInNeededError(ServiceError):
    """This form wants to know who fills it in. Sign in to go on; nothing you typed is lost."""

    code = "sign_in_needed"


class NotAdmittedError(ServiceError):
    """This form is for others. Ask whoever sent it to let you in."""

    code = "not_admitted"


class FactorRefusedError(ServiceError):
    """This second factor was not taken. Try it again, or use another way."""

    code = "factor_refused"


class StepOverError(ServiceError):
    """This took too long, or was done already. Begin again."""

    code = "step_over"


class MoveRefusedError(ServiceError):
    """This form can't be moved there now."""

    code = "move_refused"


class LinkUsedError(ServiceError):
    """This link does not work any more: it was used, or its time is over. Ask for a new one."""

    code = "link_used"


class CalendarRefusedError(ServiceError):
    """This calendar can't be taken up."""

    code = "calendar_refused"


class AccountRefusedError(ServiceError):
    """The provider does not know this key. Copy it anew from the provider's own pages."""

    code = "account_refused"


class RefundRefusedError(ServiceError):
    """This can't be given back. Look at what is left of the payment."""

    code = "refund_refused"


class PlanRefusedError(ServiceError):
    """This can't be done with the plan. Look at how it stands."""

    code = "plan_refused"


class PlansRunError(ServiceError):
    """Plans of this form still charge people. Stop them first."""

    code = "plans_run"


class AccountGoneError(ServiceError):
    """Nothing can be paid here just now. Nothing was sent; please tell whoever has this form."""

    code = "account_gone"


class PasswordNeededError(ServiceError):
    """This form asks for a password. Open it anew and type it."""

    code = "password_needed"


class SealError(ServiceError):
    """A sealed link does not open its form; `name` is that of the message for visitors, `message` that in words."""

    code = "link_refused"

    def __init__(self, name: str, message: str = "") -> None:
        self.name = name
        super().__init__(message)


class NamedElsewhereError(ServiceError):
    """Other records name these. Choose what becomes of them."""

    code = "named_elsewhere"


class TableRefusedError(ServiceError):
    """This table can't be read. Save it as CSV again."""

    code = "table_refused"


class TermsChangedError(Exception):
    """Who may fill in the form was changed while a response was taken; look again."""


class PublishedMeanwhileError(ServiceError):
    """Somebody else has published this form since you opened it."""

    code = "published_meanwhile"
