"""Landmarks of relations: what happens where sides are equal, in the plane."""
