"""A job with its photos in one zip: `job.json` and `photos/ID.jpg`."""

import hashlib
import io
import zipfile
from collections.abc import Mapping

from amber_gable.domain.errors import InputError
from amber_gable.domain.job.job import JobBundle
from amber_gable.exchange.files import decode
from amber_gable.exchange.job.bundle import dump_bundle, load_bundle
from amber_gable.exchange.sizes import SIZE_LIMIT, ZIP_LIMIT

JOB, FOLDER = "job.json", "photos/"
MOST_FILES = 2000
# Every file carries the same moment, so that the same job gives the same bytes.
_MOMENT = (2020, 1, 1, 0, 0, 0)
_TODO = "export the job again; nothing was saved"


def is_zip(data: bytes) -> bool:
    return data.startswith(b"PK\x03\x04")


def dump_zip(bundle: JobBundle, photos: Mapping[str, bytes]) -> bytes:
    """The same job always gives the same bytes."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        archive.writestr(_entry(JOB, zipfile.ZIP_DEFLATED), dump_bundle(bundle))
        for photo in bundle.property.photos:
            archive.writestr(_entry(f"{FOLDER}{photo.id}.jpg", zipfile.ZIP_STORED), photos[photo.id])
    return out.getvalue()


def _entry(name: str, kind: int) -> zipfile.ZipInfo:
    info = zipfile.ZipInfo(name, _MOMENT)
    info.compress_type = kind
    return info


def load_zip(data: bytes, name: str) -> tuple[JobBundle, dict[str, bytes]]:
    """The job and the bytes of every photo it names. Raises InputError for anything that does not fit."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            entries = {i.filename: i for i in archive.infolist()}
            if len(entries) > MOST_FILES or sum(i.file_size for i in entries.values()) > ZIP_LIMIT:
                raise InputError(name, "unpacks to more than 100 MB or 2000 files", "bring the job without its photos")
            if JOB not in entries:
                raise InputError(name, f"holds no {JOB}", _TODO)
            bundle = load_bundle(decode(_read(archive, entries[JOB]), JOB), f"{name}, {JOB}")
            photos = {}
            for photo in bundle.property.photos:
                entry = entries.get(f"{FOLDER}{photo.id}.jpg")
                if entry is None:
                    raise InputError(f"{name}, photo '{photo.id}'", "is named in the job but not in the zip", _TODO)
                picture = _read(archive, entry)
                if hashlib.sha256(picture).hexdigest() != photo.sha256 or not picture.startswith(b"\xff\xd8\xff"):
                    raise InputError(f"{name}, {entry.filename}", "is not the picture the job names", _TODO)
                photos[photo.id] = picture
    except (zipfile.BadZipFile, NotImplementedError, RuntimeError, EOFError, OSError) as error:
        raise InputError(name, f"is not a zip that can be read ({str(error)[:60]})", _TODO) from None
    return bundle, photos


def _read(archive: zipfile.ZipFile, entry: zipfile.ZipInfo) -> bytes:
    """An entry's bytes; what it says of its size is not trusted."""
    with archive.open(entry) as opened:
        data = opened.read(SIZE_LIMIT + 1)
    if len(data) > SIZE_LIMIT:
        raise InputError(entry.filename, "is larger than 10 MB", _TODO)
    return data


def without_photos(bundle: JobBundle) -> JobBundle:
    """The job for a plain JSON file, which carries no pictures."""
    return bundle.model_copy(update={"property": bundle.property.model_copy(update={"photos": ()})})


def refuse_missing_photos(bundle: JobBundle, name: str) -> None:
    """Raises InputError for a plain JSON job that names photos."""
    if bundle.property.photos:
        first = bundle.property.photos[0].id
        raise InputError(f"{name}, photo '{first}'", "comes without its picture", "bring the zip, or take photos out")
