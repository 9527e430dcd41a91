"""Published records as readers get them."""

from collections.abc import Iterator, Mapping, Sequence
from typing import Any

from codexa.core.fields.field_type import Medium
from codexa.core.fields.file_upload import FileUploadField, is_shown_small
from codexa.core.form.known_tables import label_of
from codexa.core.tables.publication import KeptContent, Publication, PublishedCell, PublishedRecord
from codexa.core.tables.records import texts_of
from codexa.core.tables.table import Table


def published_record(table: Table, publication: Publication, record: KeptContent) -> PublishedRecord:
    """Return what anybody may read of a record: what is in no chosen column stays behind."""
    shown = texts_of(table, record.kept, Medium.PAGE)
    return PublishedRecord(
        number=record.number,
        name=record.name or f"{record.number}",
        author=shown.get(publication.author, ""),
        published_at=record.published_at,
        changed_at=max(record.published_at, record.changed_at),
        cells=tuple(_cells(table, publication, record.kept, shown)),
    )


def _cells(
    table: Table, publication: Publication, kept: Mapping[str, Any], shown: Mapping[str, str]
) -> Iterator[PublishedCell]:
    plain = texts_of(table, {each: kept[each] for each in publication.columns if each in kept}, Medium.CSV)
    for column_id in publication.columns:
        column = table.columns.get(column_id)
        if column is not None and column_id in plain:
            yield PublishedCell(
                key=column.key,
                label=label_of(column),
                value=plain[column_id],
                text=shown[column_id],
                pictures=_pictures(kept[column_id]) if isinstance(column, FileUploadField) else (),
            )


def _pictures(files: Sequence[Mapping[str, Any]]) -> tuple[str, ...]:
    return tuple(each["id"] for each in files if is_shown_small(each["type"]))
