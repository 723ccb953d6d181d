"""Newton's method for all states of a network, compiled by numba and cached on disk.

Every element puts its currents and their slopes at its nodes; node 0 is ground. Junctions are
stepped along their curve and not up it, as is usual for circuits (Nagel, SPICE2, UCB/ERL M520,
1975), and a converter that jumps over its set volts is looked at on the edge between.
"""

from math import exp, log, sqrt
from typing import Any

import numpy as np
from numba import njit
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
Slopes = tuple[float, float, float, float]
"""A current, and its slopes over the volts before, behind and at the enable pin of a converter."""

LEAK_S = 1e-9
"""Every node leaks so much to ground (a gigaohm), so that nothing floats."""
ROUNDS, STEP_V, CLOSE_V = 80, 2.0, 1e-7
FREE, NARROWS = 20, 0.85
"""So many rounds at the most, each node by so many volts, until none moves by more than so little;
after the free ones each step is narrower than the one before. Found by trial on 2,000 networks.
"""
STEPS, FIRST_S, LEAST_S, LET_GO_S = 300, 0.1, 1e-3, 1e-6
"""How many times nodes are let go or held back again; held at first, from a failure on, and no
longer below so many siemens. Found by trial on the same networks.
"""
KNEE, RISE = 0.3, 1.0440306508910548  # sqrt(1 + KNEE^2)
ENABLED_V, EDGE_V = 0.8, 0.02
"""A converter is on from about so many volts at its pin, over so narrow an edge; common
practice.
"""
OUT_OHM = 0.02
"""Behind what a converter holds; a few millivolts under load. Assumed."""
SHARP = 0.004
"""How round the corners of limits are, as a share of the most amperes."""
BEND_V = 0.001
"""How round the corner is where a converter gives nothing: over about so many volts behind it."""
TAIL = 25.0
"""So many of these down the bend, a converter gives nothing for certain."""


@njit(cache=True, nogil=True)
def softly(x: float) -> float:  # pragma: no cover
    """ln(1 + e^x), without overflow."""
    if x > 35.0:
        return x
    return log(1.0 + exp(x)) if x > -35.0 else 0.0


@njit(cache=True, nogil=True)
def slope(x: float) -> float:  # pragma: no cover
    """Its slope: 1 / (1 + e^-x)."""
    if x > 35.0:
        return 1.0
    return 1.0 / (1.0 + exp(-x)) if x > -35.0 else 0.0


@njit(cache=True, nogil=True)
def stepped(new: float, old: float, nvt: float, critical: float) -> float:  # pragma: no cover
    """The volts at which a junction is looked at next: no further than its curve lets."""
    if new > critical and abs(new - old) > 2 * nvt:
        if old > 0:
            arg = 1 + (new - old) / nvt
            return old + nvt * log(arg) if arg > 0 else critical
        return nvt * log(new / nvt)
    return new


@njit(cache=True, nogil=True)
def curve(volts: float, saturation: float, nvt: float) -> tuple[float, float]:  # pragma: no cover
    """Current and slope of a junction; far beyond its curve it goes on straight."""
    x = volts / nvt
    if x > 80.0:
        top = exp(80.0)
        return saturation * (top * (1 + x - 80.0) - 1), saturation * top / nvt
    e = exp(x) if x > -80.0 else 0.0
    return saturation * (e - 1), saturation * e / nvt


@njit(cache=True, nogil=True)
def channel(
    vgs: float, vds: float, threshold: float, k: float
) -> tuple[float, float, float]:  # pragma: no cover
    """Drain current of an N channel with vds >= 0, and its slopes over vgs and vds."""
    over = vgs - threshold
    if over <= 0:
        return 0.0, 0.0, 0.0
    if vds < over:
        return k * (over - vds / 2) * vds, k * vds, k * (over - vds)
    return k / 2 * over * over, k * over, 0.0


@njit(cache=True, nogil=True)
def nothing(row: Floats) -> float:  # pragma: no cover
    """How round in A the corner is where a converter gives nothing."""
    ohm = OUT_OHM if row[5] > 0.5 else max(float(row[4]), OUT_OHM)
    return min(SHARP * float(row[2]), BEND_V / ohm)


@njit(cache=True, nogil=True)
def settled(u: float, o: float, old: float, row: Floats) -> float:  # pragma: no cover
    """The volts behind a converter at which it is looked at next: not beyond the corner where it
    gives nothing in one leap, and down the bend there by small steps.
    """
    corner, r = (row[0], OUT_OHM) if row[5] > 0.5 or u > row[0] else (u, row[4])
    scale = r * nothing(row)
    new, was = (corner - o) / scale, (corner - old) / scale
    if (new < -2.0 and was > 2.0) or (new > 2.0 and was < -TAIL):
        return corner
    if -TAIL <= was <= 2.0 and new < was - 2.0:
        return corner - scale * (was - 2.0)
    return o


@njit(cache=True, nogil=True)
def made(u: float, o: float, e: float, row: Floats) -> tuple[Slopes, Slopes]:  # pragma: no cover
    """What a converter gives and takes, in A, with the slopes of both over its volts before (u),
    behind (o) and at its enable pin (e); `row` is volts, least, most, efficiency, drop, steps up,
    quiet.
    """
    volts, least, most, eff, drop, up, quiet = row
    w = SHARP * most + 1e-6
    none = nothing(row)
    s1, s2 = slope((e - ENABLED_V) / EDGE_V), slope((u - least) / EDGE_V)
    s = s1 * s2
    s_e, s_u = s1 * (1 - s1) / EDGE_V * s2, s2 * (1 - s2) / EDGE_V * s1
    m, m_u, m_o = (volts - o) / OUT_OHM, 0.0, -1 / OUT_OHM
    if up < 0.5:
        other = (u - o) / drop
        share = slope((m - other) / w)
        m -= w * softly((m - other) / w)
        m_o, m_u = m_o * (1 - share) - share / drop, share / drop
    share = slope((m - most) / w)
    m -= w * softly((m - most) / w)
    m_o, m_u = m_o * (1 - share), m_u * (1 - share)
    share = slope(m / none)
    m = none * softly(m / none)
    m_o, m_u = m_o * share, m_u * share
    out, out_u, out_o, out_e = s * m, s * m_u + s_u * m, s * m_o, s_e * m
    if eff == 0.0:
        return (
            (out, out_u, out_o, out_e),
            (out + s * quiet, out_u + s_u * quiet, out_o, out_e + s_e * quiet),
        )
    before, before_u = (u, 1.0) if u > KNEE else (KNEE, 0.0)
    behind, behind_o = (o, 1.0) if o > 0 else (0.0, 0.0)
    r = behind / (eff * before)
    taken = out * r + s * quiet
    taken_u = out_u * r - out * r / before * before_u + s_u * quiet
    taken_o = out_o * r + out * behind_o / (eff * before)
    return (out, out_u, out_o, out_e), (taken, taken_u, taken_o, out_e * r + s_e * quiet)


@njit(cache=True, nogil=True)
def join(a: int, b: int, amps: float, g: float, f: Floats, j: Floats) -> None:  # pragma: no cover
    """A current from a to b whose slope over the volts between them is g."""
    f[a] += amps
    f[b] -= amps
    j[a, a] += g
    j[b, b] += g
    j[a, b] -= g
    j[b, a] -= g


@njit(cache=True, nogil=True)
def eliminated(
    order: Ints, starts: Ints, behind: Ints, a: Floats, b: Floats
) -> bool:  # pragma: no cover
    """Gauss in the given order, each step touching only the neighbours that are left; b becomes
    the answer. False where a pivot vanishes.
    """
    for k in range(len(order)):
        p = order[k]
        pivot = a[p, p]
        if abs(pivot) < 1e-13:
            return False
        for m in range(starts[k], starts[k + 1]):
            i = behind[m]
            f = a[i, p] / pivot
            if f != 0.0:
                for n in range(starts[k], starts[k + 1]):
                    a[i, behind[n]] -= f * a[p, behind[n]]
                b[i] -= f * b[p]
    for k in range(len(order) - 1, -1, -1):
        p = order[k]
        x = b[p]
        for m in range(starts[k], starts[k + 1]):
            x -= a[p, behind[m]] * b[behind[m]]
        b[p] = x / a[p, p]
    return True


@njit(cache=True, nogil=True)
def ordered(near: NDArray[np.bool_]) -> tuple[Ints, Ints, Ints]:  # pragma: no cover
    """An order of elimination for nodes that are neighbours, those with the fewest first: the
    order, and for each step the neighbours that are left, one row behind the other.
    """
    n = near.shape[0]
    left = np.ones(n, dtype=np.bool_)
    left[0] = False
    order = np.zeros(n - 1, dtype=np.int64)
    starts = np.zeros(n, dtype=np.int64)
    behind = np.zeros(n * n, dtype=np.int64)
    degree = np.zeros(n, dtype=np.int64)
    for i in range(1, n):
        for k in range(1, n):
            degree[i] += near[i, k]
    count = 0
    for step in range(n - 1):
        best = -1
        for i in range(1, n):
            if left[i] and (best < 0 or degree[i] < degree[best]):
                best = i
        order[step] = best
        left[best] = False
        first = count
        for i in range(1, n):
            if left[i] and near[best, i]:
                behind[count] = i
                count += 1
        starts[step + 1] = count
        for m in range(first, count):
            degree[behind[m]] -= 1
            for o in range(first, count):
                a, b = behind[m], behind[o]
                if a != b and not near[a, b]:
                    near[a, b] = True
                    degree[a] += 1
    return order, starts, behind[:count].copy()


@njit(cache=True, nogil=True)
def newton(
    laws: Any,
    on: Any,
    order: Ints,
    starts: Ints,
    behind: Ints,
    pull: float,
    before: Floats,
    v: Floats,
    memory: Any,
) -> int:  # pragma: no cover
    """The volts of one state in place of the first guess `v`; how many rounds it took, 0 where it
    found none. `pull` (S) holds every node at what it was `before`.
    """
    (ra, rb, da, db, dis, dnv, dvc, mg, md, ms, msign, mrow) = laws[0]
    (qb, qc, qe, qrow, qvc, sp, sm, sg, slim, xa, xb, xv, cs, co, cg, ce, crow) = laws[1]
    rg, don, mon, qon, sv, son, xi, con = on
    n = len(v)
    j, f = np.zeros((n, n)), np.zeros(n)
    seen, pairs, held = memory
    for number in range(ROUNDS):
        for k in range(len(order)):
            p = order[k]
            f[p] = LEAK_S * v[p] + pull * (v[p] - before[p])
            j[p, p] = LEAK_S + pull
            for m in range(starts[k], starts[k + 1]):
                j[p, behind[m]] = 0.0
                j[behind[m], p] = 0.0
        limited = False
        widest = STEP_V if number < FREE else STEP_V * NARROWS ** (number - FREE)
        for i in range(len(ra)):
            join(ra[i], rb[i], (v[ra[i]] - v[rb[i]]) * rg[i], rg[i], f, j)
        for i in range(len(da)):
            if don[i] == 0.0:
                continue
            across = v[da[i]] - v[db[i]]
            at = stepped(across, seen[i], dnv[i], dvc[i])
            limited = limited or abs(at - across) > CLOSE_V
            seen[i] = at
            amps, g = curve(at, dis[i], dnv[i])
            join(da[i], db[i], amps + g * (across - at), g, f, j)
        for i in range(len(mg)):
            if mon[i] == 0.0:
                continue
            g, d, s, sign = mg[i], md[i], ms[i], msign[i]
            if sign * (v[d] - v[s]) < 0:
                d, s = s, d
            amps, gm, gd = channel(
                sign * (v[g] - v[s]), sign * (v[d] - v[s]), mrow[i, 0], mrow[i, 1]
            )
            f[d] += sign * amps
            f[s] -= sign * amps
            j[d, g] += gm
            j[d, d] += gd
            j[d, s] -= gm + gd
            j[s, g] -= gm
            j[s, d] -= gd
            j[s, s] += gm + gd
        for i in range(len(qb)):
            if qon[i] == 0.0:
                continue
            b, c, e = qb[i], qc[i], qe[i]
            saturation, gain, back = qrow[i, 0], qrow[i, 1], qrow[i, 2]
            be, bc = v[b] - v[e], v[b] - v[c]
            at1 = stepped(be, pairs[i, 0], qrow[i, 3], qvc[i])
            at2 = stepped(bc, pairs[i, 1], qrow[i, 3], qvc[i])
            limited = limited or abs(at1 - be) > CLOSE_V or abs(at2 - bc) > CLOSE_V
            pairs[i, 0], pairs[i, 1] = at1, at2
            i1, g1 = curve(at1, saturation, qrow[i, 3])
            i2, g2 = curve(at2, saturation, qrow[i, 3])
            i1, i2 = i1 + g1 * (be - at1), i2 + g2 * (bc - at2)
            ic, ib = i1 - i2 * (1 + 1 / back), i1 / gain + i2 / back
            f[c] += ic
            f[b] += ib
            f[e] -= ic + ib
            c_be, c_bc, b_be, b_bc = g1, -g2 * (1 + 1 / back), g1 / gain, g2 / back
            j[c, b] += c_be + c_bc
            j[c, e] -= c_be
            j[c, c] -= c_bc
            j[b, b] += b_be + b_bc
            j[b, e] -= b_be
            j[b, c] -= b_bc
            j[e, b] -= c_be + c_bc + b_be + b_bc
            j[e, e] += c_be + b_be
            j[e, c] += c_bc + b_bc
        for i in range(len(sp)):
            if son[i] == 0.0:
                continue
            w = SHARP * slim[i]
            x = (sv[i] - v[sp[i]] + v[sm[i]]) * sg[i]
            share = slope((x - slim[i]) / w)
            join(sm[i], sp[i], x - w * softly((x - slim[i]) / w), 0.0, f, j)
            g = sg[i] * (1 - share)
            j[sp[i], sp[i]] += g
            j[sm[i], sm[i]] += g
            j[sp[i], sm[i]] -= g
            j[sm[i], sp[i]] -= g
        for i in range(len(xa)):
            if xi[i] == 0.0:
                continue
            u = (v[xa[i]] - v[xb[i]]) / xv[i]
            root = sqrt(u * u + KNEE * KNEE)
            amps = xi[i] * RISE
            g = amps * KNEE * KNEE / (root * root * root * xv[i])
            join(xa[i], xb[i], amps * u / root, g, f, j)
        for i in range(len(cs)):
            if con[i] == 0.0:
                continue
            u, o, e = v[cs[i]] - v[cg[i]], v[co[i]] - v[cg[i]], v[ce[i]] - v[cg[i]]
            at = settled(u, o, held[i], crow[i])
            limited = limited or abs(at - o) > CLOSE_V
            held[i] = at
            out, taken = made(u, at, e, crow[i])
            given = out[0] + out[2] * (o - at)
            drawn = taken[0] + taken[2] * (o - at)
            for sign, node in ((1.0, cs[i]), (-1.0, cg[i])):
                f[node] += sign * drawn
                j[node, cs[i]] += sign * taken[1]
                j[node, co[i]] += sign * taken[2]
                j[node, ce[i]] += sign * taken[3]
                j[node, cg[i]] -= sign * (taken[1] + taken[2] + taken[3])
            for sign, node in ((-1.0, co[i]), (1.0, cg[i])):
                f[node] += sign * given
                j[node, cs[i]] += sign * out[1]
                j[node, co[i]] += sign * out[2]
                j[node, ce[i]] += sign * out[3]
                j[node, cg[i]] -= sign * (out[1] + out[2] + out[3])
        if not eliminated(order, starts, behind, j, f):
            return 0
        most = 0.0
        for k in range(len(order)):
            p = order[k]
            step = -f[p]
            if not abs(step) < 1e9:
                return 0
            most = max(most, abs(step))
            v[p] += min(max(step, -widest), widest)
        if most < CLOSE_V and not limited:
            return number + 1
    return 0


@njit(cache=True, nogil=True)
def recalled(laws: Any, v: Floats) -> Any:  # pragma: no cover
    """Where junctions and converters were looked at last, at these volts."""
    da, db, co, cg = laws[0][2], laws[0][3], laws[1][13], laws[1][14]
    qb, qc, qe = laws[1][0], laws[1][1], laws[1][2]
    pairs = np.zeros((len(qb), 2))
    pairs[:, 0], pairs[:, 1] = v[qb] - v[qe], v[qb] - v[qc]
    return v[da] - v[db], pairs, v[co] - v[cg]


@njit(cache=True, nogil=True)
def solved(
    laws: Any, on: Any, order: Ints, starts: Ints, behind: Ints, guess: Floats
) -> tuple[Floats, NDArray[np.bool_]]:  # pragma: no cover
    """Volts by state and node, and whether each was found: as it settles from the guess, every
    node held back at first and let go step by step, as by a capacitor. Of several answers it is the
    one that a device comes to from there.
    """
    states = on[0].shape[0]
    volts, found = guess.copy(), np.zeros(states, dtype=np.bool_)
    for s in range(states):
        row = (on[0][s], on[1][s], on[2][s], on[3][s], on[4][s], on[5][s], on[6][s], on[7][s])
        before = guess[s].copy()
        pull, v = FIRST_S, before.copy()
        for _ in range(STEPS):
            memory = recalled(laws, v)
            if newton(laws, row, order, starts, behind, pull, before, v, memory):
                if pull == 0.0:
                    volts[s] = v
                    found[s] = True
                    break
                before[:] = v
                pull = pull / 5 if pull > LET_GO_S else 0.0
            else:
                pull = max(7 * pull, LEAST_S)
                if pull > 1e6:
                    break
                v[:] = before
    return volts, found
