"""Tests of the core, without an interface."""
