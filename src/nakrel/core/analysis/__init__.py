"""What is worked out with NumPy: the frame check and lateness. The service loads none of it."""
