"""What follows from a response is neither lost nor done twice, whatever dies: a short run of the benchmark."""

from bench import mails


def test_each_follow_up_is_carried_out_exactly_once():
    assert mails.short_run()
