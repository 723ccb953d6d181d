"""What every value stands on: values that do not change and are canonical as JSON, and answers that
are kept by them.

May import the standard library and Pydantic, and nothing of the core.
"""
