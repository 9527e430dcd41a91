"""What follows from a response is neither lost nor done twice, whatever dies: a short run of the benchmark."""

from bench import mails, payments


def test_each_follow_up_is_carried_out_exactly_once():
    assert mails.short_run()


def test_each_order_is_charged_once_and_finished():
    assert payments.short_run()
