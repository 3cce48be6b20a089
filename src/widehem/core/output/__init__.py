"""core/output"""
