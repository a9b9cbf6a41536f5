"""What plays: plans, the engine with its ledger of holds, the recorder, the live sheet."""
