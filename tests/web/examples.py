"""A body for each request that would be taken."""

from conftest import visit_document


def example_of(endpoint):
    """A body that would be taken."""
    examples = {
        "LinkRequest": {"email": "somebody@example.org"},
        "NewPasswordRequest": {"token": "none", "password": "a long enough one"},
        "PasswordRequest": {"old": "wrong", "new": "a long enough one"},
        "AddressRequest": {"email": "new@example.org", "password": "wrong"},
        "ConfirmAddressRequest": {"token": "none"},
        "SignInRequest": {"email": "somebody@example.org", "password": "wrong"},
        "ExplainRequest": {"answers": {}, "part": "price"},
        "SampleRequest": {"seed": 1},
        "EvaluateRequest": {"answers": {}},
        "TypedRequest": {"answers": {}, "language": "de"},
        "TranslationFileRequest": {"locale": "de", "file": "V2hlcmUsVGV4dCxUcmFuc2xhdGlvbg=="},
        "SpokenRequest": {"block": "nothing", "words": "Hello"},
        "SubmitRequest": {"answers": {}},
        "KeepRequest": {"token": "0" * 64, "answers": {}},
        "KeptMailRequest": {"token": "0" * 64, "email": "somebody@example.org"},
        "NewFormRequest": {"name": "New"},
        "SaveDraftRequest": {"revision": 1, "draft": visit_document()},
        "RenameRequest": {"draft": visit_document(), "part": "people", "setting": "key", "name": "guests"},
        "PublishRequest": {"revision": 1},
        "OutlineRequest": {"text": "Group size* number 1..60"},
        "RowsRequest": {"formula": "adults > 12"},
        "ConditionRequest": {"rows": {"join": "all", "rows": []}},
        "OutcomeRequest": {"answers": {}},
        "FollowUpsRequest": {"answers": {}},
        "TryRequest": {"answers": {}, "follow_up": "u1"},
        "PresenceRequest": {"tab": "abc", "area": "compose"},
        "LeaveRequest": {"tab": "abc"},
        "NewBrandRequest": {"name": "Night", "look": {}},
        "BrandRequest": {"look": {}},
        "NewAccountRequest": {"secret": "practice-secret-unknown"},
        "RefundRequest": {"amount": "1"},
        "GoLiveRequest": {},
        "AccessRequest": {"access": {"most": 3}},
        "FormPasswordRequest": {"password": "clear skies"},
        "SharingRequest": {"sharing": {"title": "Come and see"}},
        "LinksRequest": {"table": "VGFsawpTdW4K", "columns": {}},
        "LinkMailsRequest": {"subject": "Your link", "words": "Here it is."},
        "SealKeyRequest": {"end_others": False},
        "LookRequest": {"page": "http://127.0.0.1:1/"},
        "PublicAddressRequest": {"address": "another"},
        "SitesRequest": {"sites": ["https://www.example.org"]},
    }
    return examples[endpoint.request.__name__] if endpoint.request else None
