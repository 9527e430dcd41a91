"""Personal desks, and moving a form from one team to another: with its link, embeds, responses and statistics.

What it needs of its team goes along where nothing else there needs it; where that can't be, the form stays, and why is
told before.
"""

from collections.abc import Iterator
from uuid import UUID

from codexa.core.form.access import Access
from codexa.core.form.form import Form
from codexa.core.form.upgrades import read_stored
from codexa.core.program.compiling import compile_form
from codexa.core.program.group_findings import groups_named
from codexa.services.addresses import free_slug, slug_of
from codexa.services.audit import note, note_of
from codexa.services.errors import MoveRefusedError, NotAllowedError, NotFoundError
from codexa.store import content, forms, groups, people, tables, team
from codexa.store import moving as store
from codexa.store.database import Connect, Connection
from codexa.store.look_ups import is_id
from codexa.store.moving import FormToMove
from codexa.store.sessions import SignedIn

_MAKERS = ("owner", "editor")


def own_desk(connect: Connect, *, who: SignedIn) -> UUID:
    """Return the personal desk of who is signed in; it is made where there is none."""
    wanted = slug_of(f"desk-{who.person_name}")
    while True:
        with connect() as connection:
            found = store.own_desk(connection, person=who.person_id)
            if found is not None:
                return found
            taken = store.slugs_of_teams(connection, slug=wanted)
            slug = next(
                each for each in (wanted, *(f"{wanted}-{at}" for at in range(2, len(taken) + 3))) if each not in taken
            )
            made = store.insert_desk(
                connection, person=who.person_id, slug=slug, name=f"Desk of {who.person_name}"[:200]
            )
        if made is not None:
            return made


def hindrances(connect: Connect, *, who: SignedIn, form: UUID, to: UUID) -> list[str]:
    """Return why a form can't move to a team, in words; nothing where it can. Raises NotFoundError, NotAllowedError."""
    with connect() as connection:
        found = _found(connection, who, form, to)
        return list(_hindrances(connection, who, form, to, found))


def move(connect: Connect, *, who: SignedIn, form: UUID, to: UUID) -> None:
    """Move a form to another team of who is signed in. Its former address leads to its new one.

    Raises NotFoundError, NotAllowedError, MoveRefusedError with what keeps it where it is.
    """
    with connect() as connection:
        _found(connection, who, form, to)  # what is not there can't be locked
        for each in sorted((who.team_id, to)):
            team.lock_team(connection, team=each)
        found = _found(connection, who, form, to)
        refused = next(iter(_hindrances(connection, who, form, to, found)), None)
        if refused is not None:
            raise MoveRefusedError(refused)
        move_now(connection, who=who, source=who.team_id, form=form, to=to, found=found)


def move_now(connection: Connection, *, who: SignedIn, source: UUID, form: UUID, to: UUID, found: FormToMove) -> None:
    """Move a form that nothing keeps where it is; both teams are locked."""
    forms.wait_for_slugs(connection, team=to)
    taken = forms.slugs_like(connection, team=to, slug=found.slug, form=form)
    slug = found.slug if found.slug not in taken else free_slug(connection, team=to, name=found.slug, form=form)
    store.move_form(
        connection,
        form=form,
        source=source,
        team=to,
        before=found.slug,
        slug=slug,
        tables=list(_tables(connection, source, found)),
        person=who.person_id,
    )
    before, after = people.team_by_id(connection, team=source).name, people.team_by_id(connection, team=to).name
    by, called = who.person_id, who.person_name
    note_of(connection, source, "form moved away", by=by, called=called, name=found.name, to=after)
    note_of(connection, to, "form moved here", by=by, called=called, name=found.name, before=before)


def _found(connection: Connection, who: SignedIn, form: UUID, to: UUID) -> FormToMove:
    """Return a form that somebody may move: an owner of where it is, who makes forms where it goes."""
    found = store.form_to_move(connection, team=who.team_id, form=form)
    if found is None:
        raise NotFoundError
    if who.role != "owner" or team.role_of(connection, team=to, person=who.person_id) not in _MAKERS:
        raise NotAllowedError("A form is moved by an owner of its team, who also makes forms in the other one.")
    return found


def _documents(found: FormToMove) -> Iterator[Form]:
    yield read_stored(found.draft)
    if found.live is not None:
        yield read_stored(found.live)


def _tables(connection: Connection, source: UUID, found: FormToMove) -> set[UUID]:
    """Return the tables of its team that a form knows."""
    ids = {UUID(each.id) for document in _documents(found) for each in document.tables if is_id(each.id)}
    return {row.id for row in tables.find_tables(connection, team=source, tables=sorted(ids))}


def _hindrances(connection: Connection, who: SignedIn, form: UUID, to: UUID, found: FormToMove) -> Iterator[str]:
    if to == who.team_id:
        yield "It is there already."
        return
    known = _tables(connection, who.team_id, found)
    for row in tables.find_tables(connection, team=who.team_id, tables=sorted(known)):
        others = store.who_uses_table(connection, team=who.team_id, form=form, table=row.id, tables=known)
        if others:
            yield f"It reads the table {row.name}, which {', '.join(sorted(set(others))[:3])} needs here, too."
        published = row.definition.get("published")
        if published and content.is_taken(connection, team=to, table=row.id, address=published["address"]):
            yield f"The table {row.name} is published at an address that another table has there."
    if any(document.payment.account for document in _documents(found)):
        yield "Its payments go to an account of this team. Choose practice in Payment, and publish that, first."
    if Access.model_validate(found.access).who == "groups":
        yield "It is for groups of this team. Say in Publish who else may fill it in first."
    there = {each.code for each in groups.list_groups(connection, team=to)}
    asked = {code for document in _documents(found) for code in groups_named(compile_form(document))}
    if asked - there:
        yield f"It names groups that are not there: {', '.join(sorted(asked - there))}. Make them there first."
    people_of = {each for document in _documents(found) for each in document.people}
    missing = store.people_missing(connection, team=to, people=people_of)
    if missing:
        yield f"It writes to {', '.join(missing)}, not of that team. Invite them there, or write to somebody else."


def bring(connection: Connection, *, who: SignedIn, person: UUID) -> list[str]:
    """Bring the forms of somebody's personal desk to the team of who is signed in; return those that had to stay.

    The team is locked.
    """
    source = store.own_desk(connection, person=person)
    if source is None:
        return []
    team.lock_team(connection, team=source)
    owner = people.as_signed_in(connection, person=person, team=source)
    stayed = []
    for form, name in store.forms_of_desk(connection, person=person):
        found = store.form_to_move(connection, team=source, form=form)
        if found is None or any(_hindrances(connection, owner, form, who.team_id, found)):
            stayed.append(name)
        else:
            move_now(connection, who=who, source=source, form=form, to=who.team_id, found=found)
    if stayed:
        note(connection, who, "forms stayed", name=", ".join(stayed))
    return stayed
