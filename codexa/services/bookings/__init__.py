"""Bookings: slots that responses have, wait for, change and give back."""
