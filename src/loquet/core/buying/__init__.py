"""What has to be bought beside the boards, and lists for a shop.

May import everything below the checks, fabrication for the form of its tables and the stack for its
screws; nothing in the core imports it.
"""
