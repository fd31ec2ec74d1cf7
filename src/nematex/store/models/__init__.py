"""The tables, by room. Column comments say unit and range; rules live in the core."""

from nematex.store.models.air import (
    KitOfferRow,
    MakeRow,
    NoteEditRow,
    PracticeAnswerRow,
    PracticeCardRow,
    PublicationRow,
    RemotePressRow,
    RemoteRow,
    SewAlongRow,
    TakeEventRow,
    TakeRow,
)
from nematex.store.models.base import LETTER_BY_LETTER, Base
from nematex.store.models.cloth import (
    ClothRow,
    FeedRow,
    FilterRow,
    MappingRow,
    PhotoRow,
    ReadingRow,
    ReservationRow,
    StockReadingRow,
)
from nematex.store.models.pattern import OverrideRow, PatternRow, RuleFixRow
from nematex.store.models.people import InvitationRow, PasskeyRow, PersonRow, SignInRow, TrailRow
from nematex.store.models.programme import PickPhotoRow, PickRow, ProgrammeRow
from nematex.store.models.shop import GoneRow, ImportStepRow, JobPartRow, JobRow, SettingRow, ShopTextRow, UploadRow

__all__ = [
    "LETTER_BY_LETTER",
    "Base",
    "ClothRow",
    "FeedRow",
    "FilterRow",
    "GoneRow",
    "ImportStepRow",
    "InvitationRow",
    "JobPartRow",
    "JobRow",
    "KitOfferRow",
    "MakeRow",
    "MappingRow",
    "NoteEditRow",
    "OverrideRow",
    "PasskeyRow",
    "PatternRow",
    "PersonRow",
    "PhotoRow",
    "PickPhotoRow",
    "PickRow",
    "PracticeAnswerRow",
    "PracticeCardRow",
    "ProgrammeRow",
    "PublicationRow",
    "ReadingRow",
    "RemotePressRow",
    "RemoteRow",
    "ReservationRow",
    "RuleFixRow",
    "SettingRow",
    "SewAlongRow",
    "ShopTextRow",
    "SignInRow",
    "StockReadingRow",
    "TakeEventRow",
    "TakeRow",
    "TrailRow",
    "UploadRow",
]
