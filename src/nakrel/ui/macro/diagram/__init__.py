"""The timing diagram: a trace a control, as electronics draws it, whose edges and holds can be moved."""

from nakrel.ui.macro.diagram.bar import DiagramBar
from nakrel.ui.macro.diagram.widget import Diagram

__all__ = ["Diagram", "DiagramBar"]
