"""The PDF of a response: tagged, with text that can be selected, in the form's brand (weasyprint)."""

from codexa.services.response_pdf.making import response_pdf

__all__ = ["response_pdf"]
