"""Two legs on a pelvis in an independent rigid-body simulation: a development tool and no part of the product."""

from __future__ import annotations

import mujoco

from asketa_core.units import SIDES

THIGH, SHIN, HALF_PELVIS = 0.42, 0.41, 0.085

LEG = """
<body name="thigh_{side}" pos="0 {y} 0">
  <joint name="flexion_{side}" axis="0 -1 0"/>
  <joint name="abduction_{side}" axis="{m} 0 0"/>
  <joint name="rotation_{side}" axis="0 0 {m}"/>
  <geom size="0.01"/>
  <body name="shin_{side}" pos="0 0 -{thigh}">
    <joint name="knee_{side}" axis="0 1 0"/>
    <geom size="0.01"/>
    <body name="foot_{side}" pos="0 0 -{shin}"><geom size="0.01"/></body>
  </body>
</body>
"""
"""Hip axes in our order, each right-handed in the frame the one before leaves; the knee bends backward."""


def model() -> mujoco.MjModel:
    legs = "".join(LEG.format(side=s.value, y=s.sign * HALF_PELVIS, m=s.sign, thigh=THIGH, shin=SHIN) for s in SIDES)
    pelvis = '<joint name="yaw" axis="0 0 1"/><joint name="roll" axis="1 0 0"/><joint name="pitch" axis="0 1 0"/>'
    return mujoco.MjModel.from_xml_string(
        f'<mujoco><compiler angle="degree"/><worldbody><body name="pelvis" pos="0 0 1">{pelvis}'
        f'<geom size="0.01"/>{legs}</body></worldbody></mujoco>'
    )
