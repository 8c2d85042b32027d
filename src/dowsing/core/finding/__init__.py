"""Words to ranked entries."""
