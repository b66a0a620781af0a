"""The part of a managing device, simulated: docs/device.md describes what stands between them."""
