"""The sheet of a response in the form's brand: as tagged PDF with text to select (weasyprint), or as a page."""

from codexa.services.response_pdf.making import response_page, response_pdf

__all__ = ["response_page", "response_pdf"]
