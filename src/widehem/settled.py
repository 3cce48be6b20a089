"""How seldom memory is looked through for what is left over: a draft makes ten thousand small values, and nearly all of them go by
themselves."""

import gc

SELDOM = 20_000, 20, 20


def seldom() -> None:
    """From here on memory is looked through seldom: a nest is graded in a third less time."""
    gc.set_threshold(*SELDOM)


def settle_down() -> None:
    """What is loaded by now stays: looking it through again and again would cost every hundredth redraft."""
    gc.collect()
    gc.freeze()
    seldom()
    gc.enable()
