"""Passkeys (WebAuthn, checked by the webauthn package): making one, and signing in by one."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

import webauthn
from webauthn.helpers import base64url_to_bytes, bytes_to_base64url, options_to_json, parse_authentication_credential_json
from webauthn.helpers.exceptions import WebAuthnException
from webauthn.helpers.structs import (
    AuthenticatorSelectionCriteria,
    PublicKeyCredentialDescriptor,
    ResidentKeyRequirement,
    UserVerificationRequirement,
)

from nematex.core.errors import FieldFault
from nematex.core.people.name import read_name
from nematex.store.people import passkeys, persons
from nematex.store.people.persons import Person
from nematex.usecases.held.shop import Shop
from nematex.usecases.people.signing_in import SignInRefused

MOST = 12
REFUSED = "was not taken: the device's answer does not fit what it was asked. Try again, or sign in with the password"


@dataclass(frozen=True)
class Place:
    """Where the shop is: the host's name, and the full origin that the browser saw."""

    host: str
    origin: str


def asked_to_make(shop: Shop, person: Person, place: Place, shop_name: str) -> tuple[str, str]:
    """What the browser is asked (JSON), and the challenge to keep until it answers."""
    assert person.id is not None
    with shop.database.work() as work:
        known = [PublicKeyCredentialDescriptor(id=one.credential) for one in passkeys.passkeys_of(work, person.id)]
    options = webauthn.generate_registration_options(
        rp_id=place.host,
        rp_name=shop_name,
        user_id=str(person.id).encode(),
        user_name=person.name,
        exclude_credentials=known,
        authenticator_selection=AuthenticatorSelectionCriteria(
            resident_key=ResidentKeyRequirement.REQUIRED, user_verification=UserVerificationRequirement.REQUIRED
        ),
    )
    return options_to_json(options), bytes_to_base64url(options.challenge)


def make(shop: Shop, person: Person, place: Place, challenge: str, answer: str, name: str, now: datetime) -> None:
    """Keep the public half of a passkey that was made. Raises FieldFault."""
    assert person.id is not None
    called = read_name(name)
    try:
        found = webauthn.verify_registration_response(
            credential=answer,
            expected_challenge=base64url_to_bytes(challenge),
            expected_rp_id=place.host,
            expected_origin=place.origin,
            require_user_verification=True,
        )
    except (WebAuthnException, ValueError, KeyError, TypeError) as fault:
        raise FieldFault("passkey", called, REFUSED) from fault
    with shop.database.work() as work:
        if len(passkeys.passkeys_of(work, person.id)) >= MOST:
            raise FieldFault("passkey", called, f"would be one too many: {MOST} are the most; remove one first")
        key, public, count = found.credential_id, found.credential_public_key, found.sign_count
        passkeys.add_passkey(work, person.id, key, public, count, called, now)


def asked_to_sign_in(place: Place) -> tuple[str, str]:
    options = webauthn.generate_authentication_options(rp_id=place.host, user_verification=UserVerificationRequirement.REQUIRED)
    return options_to_json(options), bytes_to_base64url(options.challenge)


def sign_in_by(shop: Shop, place: Place, challenge: str, answer: str) -> Person:
    """Who this passkey belongs to. Raises SignInRefused."""
    try:
        given = parse_authentication_credential_json(answer)
        with shop.database.work() as work:
            kept = passkeys.passkey(work, given.raw_id)
            person = persons.person(work, kept.person_id) if kept else None
            if kept is None or person is None or person.ended_at:
                raise SignInRefused
            found = webauthn.verify_authentication_response(
                credential=answer,
                expected_challenge=base64url_to_bytes(challenge),
                expected_rp_id=place.host,
                expected_origin=place.origin,
                credential_public_key=kept.public_key,
                credential_current_sign_count=kept.sign_count,
                require_user_verification=True,
            )
            passkeys.note_used(work, kept.id, found.new_sign_count)
            return person
    except (WebAuthnException, KeyError, TypeError) as fault:
        raise SignInRefused from fault
    except ValueError as fault:
        raise fault if isinstance(fault, SignInRefused) else SignInRefused from fault


def remove(shop: Shop, person_id: int, passkey_id: int) -> None:
    with shop.database.work() as work:
        passkeys.remove_passkey(work, person_id, passkey_id)
