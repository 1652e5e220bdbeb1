"""Peers of the graft: OpenCV's seamlessClone and an exact Poisson solve.

graft-peers.py cases FOLDER LIST: CASE.png into FOLDER/seamless-clone and FOLDER/poisson; LIST is JSON, its paths stand in the working folder
graft-peers.py time BELOW DONOR ROUNDS: ms of every round of seamlessClone on one core, as JSON; the site is all but a border of 1 px
"""
import json
import os
import sys
import time

import cv2
import numpy as np


def seamless_clone(pasted, mask):
    ground = cv2.inpaint(pasted, mask, 3, cv2.INPAINT_TELEA)
    x, y, w, h = cv2.boundingRect(mask)
    return cv2.seamlessClone(pasted, ground, mask, (x + w // 2, y + h // 2), cv2.NORMAL_CLONE)


def poisson(pasted, mask):
    """Membrane that takes the step at the border away (Perez et al. 2003), by a sparse direct solve."""
    import scipy.sparse as sp
    import scipy.sparse.linalg as linalg

    inside = mask > 0
    number = np.full(inside.shape, -1)
    n = int(inside.sum())
    number[inside] = np.arange(n)
    diagonal, wanted, rows, columns = np.zeros(n), np.zeros((n, 3)), [], []
    f = pasted.astype(float)
    for down, right in ((0, 1), (1, 0)):
        h, w = inside.shape
        a, b = number[: h - down, : w - right], number[down:, right:]
        fa, fb = f[: h - down, : w - right], f[down:, right:]
        both = (a >= 0) & (b >= 0)
        rows += [a[both], b[both]]
        columns += [b[both], a[both]]
        for own in (a[both], b[both]):
            np.add.at(diagonal, own, 1)
        for at, own, step in (((a >= 0) & (b < 0), a, fb - fa), ((a < 0) & (b >= 0), b, fa - fb)):
            np.add.at(diagonal, own[at], 1)
            np.add.at(wanted, own[at], step[at])
    i, j = np.concatenate(rows + [np.arange(n)]), np.concatenate(columns + [np.arange(n)])
    values = np.concatenate([-np.ones(len(i) - n), diagonal])
    solve = linalg.factorized(sp.csc_matrix((values, (i, j)), (n, n)))
    out = f.copy()
    out[inside] += np.stack([solve(wanted[:, c]) for c in range(3)], 1)
    return np.clip(np.rint(out), 0, 255).astype(np.uint8)


if sys.argv[1] == 'cases':
    for name, peer in (('seamless-clone', seamless_clone), ('poisson', poisson)):
        os.makedirs(os.path.join(sys.argv[2], name), exist_ok=True)
        for case in json.load(open(sys.argv[3])):
            made = peer(cv2.imread(case['input']), cv2.imread(case['mask'], 0))
            cv2.imwrite(os.path.join(sys.argv[2], name, case['id'] + '.png'), made)
else:
    cv2.setNumThreads(1)
    below, donor = cv2.imread(sys.argv[2]), cv2.imread(sys.argv[3])
    h, w = donor.shape[:2]
    site = np.zeros((h, w), np.uint8)
    site[1:-1, 1:-1] = 255
    times = []
    for _ in range(int(sys.argv[4])):
        begin = time.perf_counter()
        cv2.seamlessClone(donor, below, site, (below.shape[1] // 2, below.shape[0] // 2), cv2.NORMAL_CLONE)
        times.append(1000 * (time.perf_counter() - begin))
    print(json.dumps(times))
