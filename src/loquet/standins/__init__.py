"""The outside world, simulated: every answer from here is labelled as simulated on screen."""
