"""Loads: what each axle and each side carries in every scenario, against its rating."""
