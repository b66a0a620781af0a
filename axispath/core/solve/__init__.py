"""Equations and inequalities in one unknown: every solution in an interval, and how sure it is."""
