"""What `./run` and the tests need from the machine.

Standard library only: it runs before anything is installed.
"""
