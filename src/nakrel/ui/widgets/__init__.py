"""Small widgets that several places of the window share."""
