"""core/marking"""
