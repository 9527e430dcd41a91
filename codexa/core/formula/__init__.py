"""The formula language: OpenFormula notation, typed, in exact decimals.

text --parse--> tree --check--> typed tree --emit--> Python source --compile--> function
"""
