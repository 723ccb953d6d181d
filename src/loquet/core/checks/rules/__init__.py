"""One file a rule; `catalogue.RULES` names them all."""
