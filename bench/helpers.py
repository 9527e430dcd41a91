"""Programs beside the server: started again whenever they have ended, as a supervisor does."""

import os
import random
import signal
import subprocess
import time
from collections import Counter
from collections.abc import Mapping, Sequence

from bench.hostile import workers_of
from bench.running import Running
from launch import PYTHON, ROOT

_BETWEEN = (0.2, 0.9)  # seconds


class Helpers:
    """Programs by name, each with the words after `python -m` that start it."""

    def __init__(self, environment: Mapping[str, str], modules: Mapping[str, Sequence[str]]) -> None:
        self._environment = dict(environment)
        self._modules = modules
        self._running: dict[str, subprocess.Popen[bytes]] = {}

    def start(self, name: str) -> None:
        """Start one."""
        command = [str(PYTHON), "-m", *self._modules[name]]
        self._running[name] = subprocess.Popen(command, cwd=ROOT, env=self._environment, stderr=subprocess.DEVNULL)

    def kill(self, name: str) -> None:
        """Kill one, with what it has started."""
        process = self._running.pop(name)
        for worker in workers_of(process.pid):
            os.kill(worker, signal.SIGKILL)
        process.kill()
        process.wait()

    def revive(self) -> None:
        """Start again what has ended."""
        for name, process in list(self._running.items()):
            if process.poll() is not None:
                self.start(name)

    def kill_all(self) -> None:
        """End all of them."""
        for name in list(self._running):
            self.kill(name)


def kill_in_turn(running: Running, helpers: Helpers, names: Sequence[str], kills: int, seed: int) -> Counter[str]:
    """Kill the server's workers, the database and these helpers so many times; return how often each.

    All in turn, so that a short run has them all; the moment is what chance decides.
    """
    chance, killed = random.Random(seed), Counter[str]()
    victims = ("web", "database", *names)
    for number in range(kills):
        time.sleep(chance.uniform(*_BETWEEN))
        victim = victims[number % len(victims)]
        if victim == "web":
            os.kill(chance.choice(workers_of(running.server)), signal.SIGKILL)
        elif victim == "database":
            running.stop_database(signal.SIGKILL)
            running.start_database()
        else:
            helpers.kill(victim)
            helpers.start(victim)
        killed[victim] += 1
        helpers.revive()
    return killed
