"""The models of the pages of Access: goods, reach and sight, moves, lifting, living, off and on."""
