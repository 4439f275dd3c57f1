"""Colours of the whole house: schemes, preview under the sun, sample boards."""

from fastapi import APIRouter

router = APIRouter()
