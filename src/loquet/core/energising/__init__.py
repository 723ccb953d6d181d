"""Switched on: one network of what every terminal does, solved in every state of the device."""
